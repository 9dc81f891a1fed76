import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Explanation, Part, Take } from '../src/api/explanations.js';
import type { Noted } from '../src/explain/index.js';
import {
  explained,
  missingVideos,
  NotedTake,
  videosIn,
  placeAt,
  playedParts,
  readNoted,
  stretchesOf,
  timeOfPlace,
  writeNoted,
} from '../src/explain/index.js';
import type { LoggedOperation } from '../src/ops/operation.js';
import { PartsClock, PlayClock, Replay } from '../src/replay/index.js';
import { aStroke } from './helpers/marks.js';

const take = (set: Partial<Take> = {}): Take => ({
  id: 'first',
  startedAt: 100_000,
  length: 10_000,
  voice: 'audio/webm',
  video: null,
  face: null,
  ...set,
});
const second = take({ id: 'second', startedAt: 200_000, length: 5000 });
const parts = (explanation: Partial<Explanation>) =>
  playedParts({ takes: [take(), second], parts: null, ...explanation });

describe('what plays of an explanation', () => {
  it('is all that was recorded, take after take, each with its own voice', () => {
    expect(parts({})).toEqual([
      { take: take(), from: 0, length: 10_000, start: 0, voice: { take: take(), from: 0 } },
      { take: second, from: 0, length: 5000, start: 10_000, voice: { take: second, from: 0 } },
    ]);
  });

  it('is what its parts say, as far as their takes go; a voice may come from elsewhere, or be none', () => {
    const cut: Part[] = [
      { take: 'first', from: 8000, length: 9000 },
      { take: 'gone', from: 0, length: 1000 },
      { take: 'first', from: 1000, length: 2000, voice: { take: 'second', from: 500 } },
      { take: 'second', from: 0, length: 1000, voice: null },
      { take: 'second', from: 6000, length: 1000 },
    ];
    expect(parts({ parts: cut })).toEqual([
      { take: take(), from: 8000, length: 2000, start: 0, voice: { take: take(), from: 8000 } },
      { take: take(), from: 1000, length: 2000, start: 2000, voice: { take: second, from: 500 } },
      { take: second, from: 0, length: 1000, start: 4000, voice: null },
    ]);
  });

  it('has no voice where none was recorded', () => {
    const silent = take({ voice: null });
    expect(playedParts({ takes: [silent], parts: null })[0]!.voice).toBeNull();
  });

  it('says where in which take a time is, and when a place plays first', () => {
    const cut = parts({
      parts: [
        { take: 'second', from: 0, length: 1000 },
        { take: 'first', from: 4000, length: 2000 },
      ],
    });
    expect(placeAt(cut, 0)).toEqual({ take: 'second', from: 0 });
    expect(placeAt(cut, 1000)).toEqual({ take: 'first', from: 4000 });
    expect(placeAt(cut, 9999)).toEqual({ take: 'first', from: 6000 });
    expect(timeOfPlace(cut, { take: 'first', from: 4500 })).toBe(1500);
    expect(timeOfPlace(cut, { take: 'first', from: 3999 })).toBeUndefined();
    expect(placeAt([], 0)).toBeUndefined();
  });

  const anyParts = fc.array(
    fc.record({
      take: fc.constantFrom('first', 'second'),
      from: fc.nat(4000),
      length: fc.integer({ min: 1, max: 5000 }),
    }),
    { minLength: 1, maxLength: 8 },
  );
  it('is found again: a time, its place and the time of that place lead to the same moment', () => {
    fc.assert(
      fc.property(anyParts, fc.double({ min: 0, max: 1, noNaN: true }), (wanted, share) => {
        const played = parts({ parts: wanted });
        const clock = new PartsClock(stretchesOf(played));
        const time = Math.floor(share * (clock.length - 1));
        const place = placeAt(played, time)!;
        const again = timeOfPlace(played, place)!;
        expect(again).toBeLessThanOrEqual(time);
        expect(clock.toReal(again)).toBe(clock.toReal(time));
        const { startedAt } = [take(), second].find(({ id }) => id === place.take)!;
        expect(clock.toReal(time)).toBe(startedAt + place.from);
      }),
    );
  });
});

describe('the time of parts', () => {
  it('is that of the next where one ends, and stays within what plays', () => {
    const clock = new PartsClock([
      { from: 100, to: 200 },
      { from: 50, to: 80 },
    ]);
    expect(clock.length).toBe(130);
    expect([0, 99, 100, 130, 500].map((time) => clock.toReal(time))).toEqual([100, 199, 50, 80, 80]);
    expect([150, 60, 210, 90, 10].map((time) => clock.toPlay(time))).toEqual([50, 110, 130, 0, 0]);
    expect(new PartsClock([]).toReal(5)).toBe(0);
  });

  it('of one part is that of a playback without cuts', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 1e6 }),
        fc.integer({ min: 1, max: 1e6 }),
        fc.nat(2e6),
        (from, length, at) => {
          const clock = new PartsClock([{ from, to: from + length }]);
          const plain = new PlayClock([{ from, to: from + length }], Infinity);
          expect(clock.length).toBeCloseTo(plain.length);
          expect(clock.toReal(at)).toBeCloseTo(plain.toReal(at));
          expect(clock.toPlay(from + (at % length))).toBeCloseTo(plain.toPlay(from + (at % length)));
        },
      ),
    );
  });
});

const stroke = (id: string, at: number, page = 'one'): LoggedOperation => ({
  seq: at,
  author: 'teacher',
  at,
  operation: {
    id,
    changes: [{ do: 'add', mark: aStroke({ id: `of ${id}`, page, points: [0, 0, 0.5, 0, 9, 9, 0.5, 400] }) }],
  },
});

describe('an explanation of a log', () => {
  const noted: Noted[] = [
    { t: 0, do: 'page', page: 'one' },
    { t: 2000, do: 'op', op: 'a' },
    { t: 5000, do: 'page', page: 'two' },
    { t: 6000, do: 'op', op: 'b' },
  ];
  // The server heard of the first one late, since the connection was lost.
  const recorded = {
    operations: [
      stroke('before', 90_000),
      stroke('a', 104_900),
      stroke('b', 106_100, 'two'),
      stroke('pause', 150_000),
    ],
    turns: [],
  };
  const replayOf = (wanted: Part[] | null = null) => {
    const played = playedParts({ takes: [take(), second], parts: wanted });
    const own = explained(
      recorded,
      { takes: [take(), second], chapters: [{ take: 'first', from: 5000, name: 'Loads' }] },
      new Map([
        ['first', noted],
        ['second', [{ t: 0, do: 'page', page: 'one' }]],
      ]),
    );
    const choice = { counts: () => true, leads: () => true, longestPause: Infinity };
    return new Replay(own, { ...choice, parts: stretchesOf(played) });
  };

  it('shows what one did when one did it, with the pages that one turned to', () => {
    const replay = replayOf();
    expect(replay.length).toBe(15_000);
    expect(replay.turns.map(({ page, name }) => [page, name])).toEqual([
      ['one', null],
      ['two', 'Loads'],
      ['one', null],
    ]);
    expect(replay.turnTimes()).toEqual([0, 5000, 10_000]);
    expect(replay.steps.map(({ seq }) => seq)).toEqual([104_900, 106_100]);
    expect(replay.spanOf(0)).toEqual({ from: 1600, to: 2000 });
    expect(replay.at(1999)).toMatchObject({ page: 'one', count: 1, growing: [{ id: 'of a' }] });
    expect(replay.at(2000)).toMatchObject({ page: 'one', count: 2, growing: [] });
    // What was done in the pause is there when it goes on, and is no step of its own.
    expect(replay.at(10_000)).toMatchObject({ page: 'one', count: 3 });
    expect([replay.nextStep(0), replay.nextStep(2000), replay.nextStep(6000)]).toEqual([
      { from: 1600, to: 2000 },
      { from: 5600, to: 6000 },
      undefined,
    ]);
    expect([replay.previousStep(7000), replay.previousStep(3000)]).toEqual([2000, 0]);
  });

  it('shows the page as it was then, in whichever order its parts play', () => {
    const replay = replayOf([
      { take: 'second', from: 0, length: 1000 },
      { take: 'first', from: 1800, length: 1000 },
      { take: 'first', from: 5500, length: 1000 },
    ]);
    expect(replay.length).toBe(3000);
    expect(replay.turnTimes()).toEqual([0, 2000]);
    expect(replay.at(500)).toMatchObject({ page: 'one', count: 3 });
    expect(replay.at(1000)).toMatchObject({ page: 'one', count: 1, growing: [{ id: 'of a' }] });
    expect(replay.at(1200)).toMatchObject({ page: 'one', count: 2 });
    expect(replay.at(2500)).toMatchObject({ page: 'two', count: 1 });
    expect(replay.spanOf(0)).toEqual({ from: 1000, to: 1200 });
  });
});

describe('what is noted beside the pages', () => {
  const style = { colour: '#112233', width: 4, opacity: 1, nature: 'marker' as const };
  const noted: Noted[] = [
    {
      t: 100,
      do: 'focus',
      focus: { kind: 'cover', page: 'one', shared: true, x: 0, y: 0, width: 9, height: 9 },
    },
    { t: 200, do: 'point', who: 0, colour: '#000', page: 'one', x: 1, y: 1 },
    { t: 300, do: 'point', who: 0, colour: '#000', page: 'one', x: 5, y: 5 },
    { t: 400, do: 'uncovered', marks: ['patch'] },
    { t: 500, do: 'rest', who: 0 },
    { t: 1500, do: 'wisp', page: 'one', style, points: [0, 0, 0.5, 0, 5, 5, 0.5, 600], fade: 2000 },
    { t: 2000, do: 'focus', focus: null },
  ];

  it('comes back from its lines in the order of its times, but for a line that was cut off', () => {
    const lines = writeNoted([...noted].reverse());
    expect(readNoted(lines)).toEqual(noted);
    expect(readNoted(`${lines}{"t":9,"do":"pa`)).toEqual(noted);
    expect(readNoted('')).toEqual([]);
  });

  it('is shown as it was at each moment', () => {
    const shown = new NotedTake(noted);
    expect(shown.at(0)).toEqual({
      focus: null,
      uncovered: [],
      playing: null,
      live: null,
      points: [],
      wisps: [],
    });
    expect(shown.at(350).focus?.kind).toBe('cover');
    expect(shown.at(350).points).toEqual([
      {
        who: 0,
        colour: '#000',
        page: 'one',
        trail: [
          { x: 1, y: 1, age: 150 },
          { x: 5, y: 5, age: 50 },
        ],
      },
    ]);
    expect(shown.at(450).uncovered).toEqual(['patch']);
    expect(shown.at(500).points).toEqual([]);
    expect(shown.at(2000).focus).toBeNull();
  });

  it('lets a wisp grow as it was drawn, and fade', () => {
    const shown = new NotedTake(noted);
    const points = (time: number) => shown.at(time).wisps[0]?.points.length;
    expect([899, 900, 1499, 1500].map(points)).toEqual([undefined, 4, 4, 8]);
    expect(shown.at(2000).wisps[0]!.left).toBe(1);
    expect(shown.at(3150).wisps[0]!.left).toBeCloseTo(0.5);
    expect(shown.at(3500).wisps).toEqual([]);
  });

  it('knows when something moved under the marks, and which videos a part needs', () => {
    const panes = [{ id: 1, region: { x: 0, y: 0, width: 9, height: 9 }, place: { x: 0, y: -40, scale: 1 } }];
    const shown = new NotedTake([
      { t: 1000, do: 'live', live: { page: 'one', panes: [] } },
      { t: 2000, do: 'live', live: { page: 'one', panes } },
      { t: 3000, do: 'live', live: null },
      { t: 8000, do: 'live', live: { page: 'two', panes: [] } },
    ]);
    expect([999, 1000, 2500, 3000].map((time) => shown.at(time).live)).toEqual([
      null,
      { page: 'one', panes: [] },
      { page: 'one', panes },
      null,
    ]);
    expect(shown.liveSpans(1500, 9000)).toEqual([
      { from: 1500, to: 2000 },
      { from: 2000, to: 3000 },
      { from: 8000, to: 9000 },
    ]);
    const both = take({ video: 'video/mp4', face: 'video/webm' });
    const [part] = parts({ takes: [both], parts: [{ take: 'first', from: 500, length: 1000 }] });
    const still = { ...part!, from: 3000, length: 4000 };
    expect(videosIn(part!, shown)).toEqual(['video', 'face']);
    expect(videosIn(still, shown)).toEqual(['face']);
    expect(videosIn({ ...part!, take: take() }, shown)).toEqual([]);
    const here = { video: new Map(), face: new Map([['first', 'a file']]) };
    expect(missingVideos([part!, still], new Map([['first', shown]]), here)).toEqual(['video']);
  });

  it('forgets one who points and is not heard of any more', () => {
    const shown = new NotedTake([{ t: 0, do: 'point', who: 0, colour: '#000', page: 'one', x: 1, y: 1 }]);
    expect(shown.at(3999).points).toHaveLength(1);
    expect(shown.at(4001).points).toEqual([]);
  });
});
