import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Change, LoggedOperation, Mark } from '../src/index.js';
import { applyChanges, emptyState } from '../src/index.js';
import { durationOf, inkUntil, PlayClock, Replay, stepsByPage } from '../src/replay/index.js';
import { aPage, aStroke, aText } from './helpers/marks.js';

const NOON = 1_700_000_000_000;
const all = () => true;
const CHOICE = { counts: all, leads: (author: string) => author === 'ada', longestPause: 2000 };

/** A stroke of some points, 10 ms and 3 units apart. */
const slow = (points: number, set: Parameters<typeof aStroke>[0] = {}) =>
  aStroke({ points: Array.from({ length: points }, (_, i) => [i * 3, 10, 0.5, i * 10]).flat(), ...set });

/** A log of what authors did at times after noon. */
function logOf(done: readonly { at: number; author?: string; changes: Change[]; undoes?: string }[]) {
  return done.map(({ at, author = 'ada', changes, undoes }, i): LoggedOperation => {
    const id = `op-${i}`;
    return {
      seq: i + 1,
      author,
      at: NOON + at,
      operation: { id, changes, ...(undoes !== undefined && { undoes }) },
    };
  });
}
const TWO_PAGES: Change[] = [
  { do: 'addPage', page: aPage() },
  { do: 'addPage', page: aPage({ id: 'page-2' }) },
];
const add = (mark: Mark): Change[] => [{ do: 'add', mark }];
const play = (operations: LoggedOperation[], set: Partial<ConstructorParameters<typeof Replay>[1]> = {}) =>
  new Replay({ operations, turns: [] }, { ...CHOICE, page: 'page-1', ...set });

describe('the clock of a playback', () => {
  const stretch = fc
    .tuple(fc.nat(60_000), fc.nat(4000))
    .map(([from, length]) => ({ from: NOON + from, to: NOON + from + length }));

  it('never goes back, keeps what is done as long as it was, and makes no pause longer than wanted', () => {
    fc.assert(
      fc.property(fc.array(stretch, { minLength: 1, maxLength: 30 }), fc.nat(3000), (stretches, longest) => {
        const clock = new PlayClock(stretches, longest);
        for (const { from, to } of stretches)
          expect(clock.toPlay(to) - clock.toPlay(from)).toBeCloseTo(to - from, 6);
        const places = stretches.flatMap(({ from, to }) => [from, to]).sort((a, b) => a - b);
        for (const [i, place] of places.slice(1).entries()) {
          const real = place - places[i]!;
          const played = clock.toPlay(place) - clock.toPlay(places[i]!);
          expect(played).toBeGreaterThanOrEqual(0);
          expect(played).toBeLessThanOrEqual(real + 1e-6);
          const isBusy = stretches.some(({ from, to }) => from <= places[i]! && to >= place);
          if (!isBusy) expect(played).toBeCloseTo(Math.min(real, longest), 6);
        }
        expect(clock.toPlay(places[0]!)).toBe(0);
        expect(clock.toPlay(places.at(-1)!)).toBeCloseTo(clock.length, 6);
      }),
    );
  });

  it('tells of each time of the playback when it really was', () => {
    fc.assert(
      fc.property(
        fc.array(stretch, { minLength: 1, maxLength: 30 }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (stretches, share) => {
          const clock = new PlayClock(stretches, 500);
          const time = share * clock.length;
          expect(clock.toPlay(clock.toReal(time))).toBeCloseTo(time, 3);
        },
      ),
    );
  });

  it('of nothing has no length', () => {
    expect(new PlayClock([], 2000).length).toBe(0);
    expect(new PlayClock([], 2000).toReal(5)).toBe(0);
  });
});

describe('ink that grows', () => {
  it('is there as far as the hand had come, and between two points as far as in a straight line', () => {
    const stroke = slow(5);
    expect(durationOf(stroke)).toBe(40);
    expect(inkUntil(stroke, -1)).toBeUndefined();
    expect(inkUntil(stroke, 0)!.points.slice(0, 2)).toEqual([0, 10]);
    expect(inkUntil(stroke, 15)!.points.slice(-4)).toEqual([4.5, 10, 0.5, 15]);
    expect(inkUntil(stroke, 40)).toBe(stroke);
    expect(inkUntil(stroke, 999)).toBe(stroke);
  });
});

describe('steps', () => {
  it('are what is seen: strokes, placed things, changes, removals, steps taken back, other paper', () => {
    const [stroke, text] = [slow(5), aText()];
    const { steps } = stepsByPage(
      logOf([
        { at: 0, changes: [{ do: 'addPage', page: aPage() }] },
        { at: 100, changes: add(stroke) },
        { at: 200, changes: add(text) },
        { at: 300, changes: [{ do: 'patch', mark: text.id, set: { text: 'Deck' } }] },
        { at: 400, changes: [{ do: 'remove', mark: stroke.id }] },
        { at: 500, changes: add(stroke), undoes: 'op-4' },
        { at: 600, changes: [{ do: 'patchPage', page: 'page-1', set: { title: 'Only a name' } }] },
        { at: 700, changes: [{ do: 'patchPage', page: 'page-1', set: { width: 500 } }] },
        { at: 800, changes: [{ do: 'remove', mark: 'never-there' }] },
      ]),
      all,
    );
    expect(steps.map(({ did }) => did)).toEqual(['draw', 'place', 'change', 'remove', 'undo', 'paper']);
    expect(steps.map(({ from, to }) => to - from)).toEqual([40, 0, 0, 0, 0, 0]);
  });

  it('of marks that do not count are none, whoever changed them', () => {
    const [mine, hers] = [slow(5, { author: 'wren' }), slow(5, { author: 'tove' })];
    const replay = play(
      logOf([
        { at: 0, author: 'wren', changes: add(mine) },
        { at: 500, author: 'tove', changes: add(hers) },
        { at: 900, changes: [{ do: 'remove', mark: hers.id }] },
        { at: 1000, changes: [{ do: 'remove', mark: mine.id }] },
      ]),
      { counts: ({ author }) => author === 'wren' },
    );
    expect(replay.steps.map(({ did, author }) => `${author} ${did}`)).toEqual(['wren draw', 'ada remove']);
  });
});

/** What is done to two pages by turns. */
const doing = fc.record({
  what: fc.constantFrom('ink', 'ink', 'text', 'patch', 'remove'),
  page: fc.constantFrom('page-1', 'page-2'),
  after: fc.nat(9000),
  which: fc.nat(30),
});

function histories(done: readonly (typeof doing extends fc.Arbitrary<infer T> ? T : never)[]) {
  const state = emptyState();
  let at = 0;
  const steps = [{ at, changes: TWO_PAGES }];
  const seen = [new Map<string, Mark>()];
  for (const { what, page, after, which } of done) {
    const mark = [...state.marks.values()][which % Math.max(1, state.marks.size)];
    const changes: Change[] =
      what === 'ink'
        ? add(slow((which % 9) + 1, { page }))
        : what === 'text' || !mark
          ? add(aText({ page }))
          : what === 'patch'
            ? [{ do: 'patch', mark: mark.id, set: { alt: `${which}` } }]
            : [{ do: 'remove', mark: mark.id }];
    at += after;
    applyChanges(state, changes);
    steps.push({ at, changes });
    seen.push(new Map(state.marks));
  }
  return { operations: logOf(steps), seen };
}

describe('a playback', () => {
  it('shows at each time what was there, without what was still being drawn, asked for in any order', () => {
    fc.assert(
      fc.property(
        fc.array(doing, { maxLength: 80 }),
        fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { maxLength: 6 }),
        (done, shares) => {
          const { operations, seen } = histories(done);
          const replay = play(operations);
          for (const share of shares) {
            const time = share * replay.length;
            const moment = replay.at(time)!;
            const real = replay.realTime(time);
            const last = operations.filter(({ at }) => at <= real).length;
            const there = [...(seen[last - 1] ?? new Map<string, Mark>()).values()].filter(
              ({ page }) => page === 'page-1',
            );
            const shown = [...replay.stateAfter(moment).marks.values()];
            expect(new Set(shown)).toEqual(new Set(there));
            for (const { id, points } of moment.growing) {
              expect(there.some((mark) => mark.id === id)).toBe(false);
              expect(points.length).toBeGreaterThan(0);
            }
          }
        },
      ),
    );
  });

  it('goes from step to step through all of them, and back', () => {
    fc.assert(
      fc.property(fc.array(doing, { minLength: 1, maxLength: 60 }), (done) => {
        const replay = play(histories(done).operations);
        const ends = [...new Set(replay.steps.map((_, i) => replay.spanOf(i).to))];
        const there: number[] = [];
        // The first step may lie at the very beginning.
        let time = replay.lastStep(0) ? 0 : -1;
        if (time === 0) there.push(0);
        for (let next = replay.nextStep(time); next; next = replay.nextStep(time)) {
          expect(next.from).toBeLessThanOrEqual(next.to);
          there.push((time = next.to));
          const done = replay.lastStep(time)!;
          expect(replay.seqOf(replay.at(time)!)).toBe(done.seq);
        }
        expect(there).toEqual(ends);
        const back: number[] = [];
        while (time > (ends[0] ?? 0)) back.unshift((time = replay.previousStep(time)));
        expect(back).toEqual(ends.slice(0, -1));
      }),
    );
  });

  it('is the same where the server’s clock was set back', () => {
    const operations = logOf([
      { at: 5000, changes: add(aText()) },
      { at: 1000, changes: add(aText()) },
      { at: 6000, changes: add(aText()) },
    ]);
    const replay = play(operations);
    expect(replay.stateAfter(replay.at(0)!).marks.size).toBe(2);
    expect(replay.stateAfter(replay.at(replay.length)!).marks.size).toBe(3);
  });

  it('leaves pauses as they were where that is wanted', () => {
    const operations = logOf([
      { at: 0, changes: add(aText()) },
      { at: 90_000, changes: add(aText()) },
    ]);
    expect(play(operations).length).toBe(2000);
    expect(play(operations, { longestPause: Infinity }).length).toBe(90_000);
  });

  it('of a page on which nothing was done shows the page', () => {
    const replay = play(logOf([{ at: 0, changes: [{ do: 'addPage', page: aPage() }] }]));
    expect(replay.length).toBe(0);
    expect(replay.steps).toEqual([]);
    expect(replay.nextStep(0)).toBeUndefined();
  });
});

describe('the whole class', () => {
  const onTwo = aText({ page: 'page-2', author: 'wren' });
  const operations = logOf([
    {
      at: 0,
      changes: TWO_PAGES,
    },
    { at: 1000, changes: add(aText()) },
    { at: 1500, author: 'wren', changes: add(onTwo) },
    { at: 9000, changes: add(aText({ page: 'page-2' })) },
  ]);

  it('turns as the class did; what was done on other pages meanwhile is there when it comes to them', () => {
    const turns = [
      { at: NOON, page: 'page-1' },
      { at: NOON + 5000, page: 'page-2' },
    ];
    const replay = new Replay({ operations, turns }, CHOICE);
    expect(replay.steps.map(({ seq }) => seq)).toEqual([2, 4]);
    expect(replay.turnTimes()).toEqual([0, 3000]);
    expect([0, 2999, 3000, 5000].map((time) => replay.turnAt(time))).toEqual([0, 0, 1, 1]);
    expect(replay.at(2999)!.page).toBe('page-1');
    const moment = replay.at(3000)!;
    expect(moment.page).toBe('page-2');
    expect([...replay.stateAfter(moment).marks.keys()]).toEqual([onTwo.id]);
    expect(replay.seqOf(moment)).toBe(3);
    expect(replay.length).toBe(5000);
  });

  it('of older classes turns where the teacher wrote', () => {
    const replay = new Replay({ operations, turns: [] }, CHOICE);
    expect(replay.turns.map(({ page, at }) => [page, at - NOON])).toEqual([
      ['page-1', 1000],
      ['page-2', 9000],
    ]);
    expect(replay.at(0)!.page).toBe('page-1');
    expect(replay.at(replay.length)!.page).toBe('page-2');
  });

  it('in which nothing was done has nothing to play', () => {
    const nothing = new Replay({ operations: [], turns: [] }, CHOICE);
    expect(nothing.at(0)).toBeUndefined();
    expect(nothing.turnAt(0)).toBe(-1);
  });
});
