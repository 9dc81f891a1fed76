import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Part, Take } from '../src/api/explanations.js';
import type { Noted } from '../src/explain/index.js';
import {
  cutOut,
  lengthOf,
  partsWithin,
  playedParts,
  replaced,
  settledNotes,
  settledSettings,
  settledTakes,
  shortened,
  silencesIn,
  spansWithout,
  withDrawing,
  withVoice,
} from '../src/explain/index.js';

const A: Part = { take: 'a', from: 0, length: 10_000 };
const B: Part = { take: 'b', from: 2000, length: 5000 };

describe('mending', () => {
  it('keeps a span alone, or cuts it out', () => {
    expect(partsWithin([A, B], { from: 8000, to: 11_000 })).toEqual([
      { take: 'a', from: 8000, length: 2000 },
      { take: 'b', from: 2000, length: 1000 },
    ]);
    expect(cutOut([A, B], { from: 8000, to: 11_000 })).toEqual([
      { take: 'a', from: 0, length: 8000 },
      { take: 'b', from: 3000, length: 4000 },
    ]);
    expect(cutOut([A], { from: 0, to: 99_999 })).toEqual([]);
  });

  it('puts a new take where a span was, or from a moment on', () => {
    const fresh: Part = { take: 'c', from: 0, length: 700 };
    expect(replaced([A, B], { from: 4000, to: 5000 }, [fresh])).toEqual([
      { take: 'a', from: 0, length: 4000 },
      fresh,
      { take: 'a', from: 5000, length: 5000 },
      B,
    ]);
    expect(replaced([A, B], { from: 4000, to: Infinity }, [fresh])).toEqual([
      { take: 'a', from: 0, length: 4000 },
      fresh,
    ]);
  });

  it('says something else over what is drawn, and is silent where the new voice is over', () => {
    expect(withVoice([A, B], { from: 9000, to: 12_000 }, { id: 'v', length: 2500 })).toEqual([
      { take: 'a', from: 0, length: 9000 },
      { take: 'a', from: 9000, length: 1000, voice: { take: 'v', from: 0 } },
      { take: 'b', from: 2000, length: 1500, voice: { take: 'v', from: 1000 } },
      { take: 'b', from: 3500, length: 500, voice: null },
      { take: 'b', from: 4000, length: 3000 },
    ]);
  });

  it('draws something else under what is said, as far as that goes', () => {
    expect(withDrawing([A, B], { from: 9000, to: 12_000 }, { id: 'd', length: 2500 })).toEqual([
      { take: 'a', from: 0, length: 9000 },
      { take: 'd', from: 0, length: 1000, voice: { take: 'a', from: 9000 } },
      { take: 'd', from: 1000, length: 1500, voice: { take: 'b', from: 2000 } },
      { take: 'b', from: 4000, length: 3000 },
    ]);
  });

  it('keeps the voice of a part with what is cut of it', () => {
    const spoken = withVoice([A], { from: 0, to: 10_000 }, { id: 'v', length: 10_000 });
    expect(cutOut(spoken, { from: 1000, to: 4000 })).toEqual([
      { take: 'a', from: 0, length: 1000, voice: { take: 'v', from: 0 } },
      { take: 'a', from: 4000, length: 6000, voice: { take: 'v', from: 4000 } },
    ]);
  });

  it('shortens what is silent too long, from its middle', () => {
    const silences = [
      { from: 1000, to: 1800 },
      { from: 3000, to: 6000 },
      { from: 7000, to: 9000 },
    ];
    expect(shortened([A], silences, 1000)).toEqual([
      { take: 'a', from: 0, length: 3500 },
      { take: 'a', from: 5500, length: 2000 },
      { take: 'a', from: 8500, length: 1500 },
    ]);
  });

  const anyPart = fc.record({
    take: fc.constantFrom('a', 'b'),
    from: fc.nat(5000),
    length: fc.integer({ min: 1, max: 5000 }),
  });
  const anyParts = fc.array(anyPart, { minLength: 1, maxLength: 6 });
  /** What plays each millisecond. */
  const played = (parts: readonly Part[]) =>
    parts.flatMap(({ take, from, length, voice }) =>
      Array.from({ length }, (_, i) => {
        const heard = voice === undefined ? { take, from } : voice;
        return `${take} ${from + i} ${heard ? `${heard.take} ${heard.from + i}` : '-'}`;
      }),
    );

  it('changes nothing outside the span, whatever was mended before', () => {
    fc.assert(
      fc.property(
        anyParts,
        fc.array(fc.tuple(fc.nat(3), fc.nat(9000), fc.integer({ min: 1, max: 4000 }), fc.nat(4000)), {
          maxLength: 5,
        }),
        (first, edits) => {
          let parts: Part[] = first;
          for (const [which, from, length, fresh] of edits) {
            const span = {
              from: Math.min(from, lengthOf(parts)),
              to: Math.min(from + length, lengthOf(parts)),
            };
            const before = played(parts);
            const take = { id: 'n', length: fresh };
            const after =
              which === 0
                ? cutOut(parts, span)
                : which === 1
                  ? withVoice(parts, span, take)
                  : which === 2
                    ? withDrawing(parts, span, take)
                    : replaced(parts, span, fresh > 0 ? [{ take: 'n', from: 0, length: fresh }] : []);
            const now = played(after);
            const rest = before.length - span.to;
            expect(now.slice(0, span.from)).toEqual(before.slice(0, span.from));
            expect(rest === 0 ? [] : now.slice(-rest)).toEqual(before.slice(span.to));
            if (which === 1)
              expect(now.map((one) => one.split(' ').slice(0, 2))).toEqual(
                before.map((one) => one.split(' ').slice(0, 2)),
              );
            expect(after.every((part) => part.length > 0)).toBe(true);
            parts = after;
          }
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('silences', () => {
  const speech = (pattern: string) => Array.from(pattern, (char) => ({ x: 0.2, '.': 0.002, _: 0 })[char]!);

  it('are where it is much quieter than the voice, for long enough', () => {
    expect(silencesIn(speech('xx..xxx.....xx___'), 100, 300)).toEqual([
      { from: 700, to: 1200 },
      { from: 1400, to: 1700 },
    ]);
    expect(silencesIn(speech('xxxxxx'), 100, 300)).toEqual([]);
    expect(silencesIn(speech('______'), 100, 300)).toEqual([{ from: 0, to: 600 }]);
    expect(silencesIn([], 100, 300)).toEqual([]);
  });

  it('in which something is drawn are none', () => {
    const drawn = [
      { from: 0, to: 500 },
      { from: 2000, to: 2500 },
      { from: 2400, to: 3000 },
      { from: 5500, to: 9000 },
    ];
    expect(spansWithout([{ from: 1000, to: 6000 }], drawn, 1500)).toEqual([{ from: 3000, to: 5500 }]);
    expect(spansWithout([{ from: 1000, to: 6000 }], drawn, 500)).toEqual([
      { from: 1000, to: 2000 },
      { from: 3000, to: 5500 },
    ]);
    expect(spansWithout([{ from: 1000, to: 6000 }], [], 1500)).toEqual([{ from: 1000, to: 6000 }]);
  });
});

describe('what plays, made all that there is', () => {
  const take = (id: string, startedAt: number): Take => ({
    id,
    startedAt,
    length: 10_000,
    voice: 'audio/webm',
    video: 'video/mp4',
    face: null,
  });
  const played = playedParts({
    takes: [take('a', 1000), take('b', 50_000)],
    parts: [
      { take: 'a', from: 2000, length: 3000 },
      { take: 'b', from: 0, length: 1000, voice: null },
    ],
  });
  const ids = ['x', 'y'];
  const settled = settledTakes(played, () => ids.shift()!);

  it('is a take for each part, at the time at which it was recorded', () => {
    expect(settled.map((one) => one.take)).toEqual([
      { id: 'x', startedAt: 3000, length: 3000, voice: 'audio/webm', video: 'video/mp4', face: null },
      { id: 'y', startedAt: 50_000, length: 1000, voice: null, video: 'video/mp4', face: null },
    ]);
  });

  it('keeps what was noted meanwhile, and how things stood when it begins', () => {
    const noted: Noted[] = [
      { t: 0, do: 'page', page: 'one' },
      { t: 100, do: 'op', op: 'early' },
      { t: 1000, do: 'page', page: 'two' },
      { t: 1500, do: 'uncovered', marks: ['patch'] },
      { t: 2000, do: 'op', op: 'there already' },
      { t: 2500, do: 'op', op: 'within' },
      { t: 5001, do: 'op', op: 'late' },
    ];
    const lines = new Map([[played[0]!.take.id, [...noted, { t: 6000, do: 'sound' as const, at: 5900 }]]]);
    expect(settledNotes(lines, played[0]!)).toEqual([
      { t: 0, do: 'page', page: 'two' },
      { t: 0, do: 'focus', focus: null },
      { t: 0, do: 'uncovered', marks: ['patch'] },
      { t: 0, do: 'playing', playing: null },
      { t: 0, do: 'live', live: null },
      { t: 500, do: 'op', op: 'within' },
    ]);
  });

  it('has its stops, chapters and captions where they were, but for those at what is gone', () => {
    const said = {
      stops: [
        { id: '1', take: 'a', from: 2500, text: '', seconds: null },
        { id: '2', take: 'a', from: 9000, text: '', seconds: null },
      ],
      chapters: [{ take: 'b', from: 0, name: 'Loads' }],
      captions: [
        { take: 'b', from: 400, length: 300, text: 'Arches' },
        { take: 'a', from: 0, length: 0, text: 'no time yet' },
      ],
    };
    expect(settledSettings(said, settled)).toEqual({
      stops: [{ id: '1', take: 'x', from: 500, text: '', seconds: null }],
      chapters: [{ take: 'y', from: 0, name: 'Loads' }],
      captions: [{ take: 'y', from: 400, length: 300, text: 'Arches' }],
    });
  });
});
