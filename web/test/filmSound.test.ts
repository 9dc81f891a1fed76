import type { Take } from '@doodla/core';
import { FilmClock, holdsOf, playedParts, SoundClock } from '@doodla/core/explain';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { atRate, heardIn, SOUND_RATE } from '../src/film/filmSound';

const take = (id: string, length: number, voice: string | null = 'audio/webm'): Take => ({
  id,
  startedAt: 0,
  length,
  voice,
  video: null,
  face: null,
});

describe('what is heard in a film', () => {
  it('is each voice where its part plays, and nothing while the film stands still', () => {
    const takes = [take('a', 3000), take('quiet', 1000, null), take('b', 2000)];
    const parts = [
      { take: 'a', from: 1000, length: 2000 },
      { take: 'quiet', from: 0, length: 1000 },
      { take: 'a', from: 0, length: 1000, voice: { take: 'b', from: 500 } },
    ];
    const played = playedParts({ takes, parts });
    const clock = new FilmClock(4000, holdsOf([{ time: 1500, text: '', seconds: 2 }]));
    expect(heardIn(clock, played, new Map())).toEqual([
      { from: 0, to: 1.5, take: 'a', at: 1 },
      { from: 1.5, to: 3.5, take: undefined, at: 0 },
      { from: 3.5, to: 4, take: 'a', at: 2.5 },
      { from: 4, to: 5, take: undefined, at: 0 },
      { from: 5, to: 6, take: 'b', at: 0.5 },
    ]);
  });

  it('is silent where sound is missing, and in step after it', () => {
    const played = playedParts({
      takes: [take('a', 4000)],
      parts: [{ take: 'a', from: 1000, length: 3000 }],
    });
    const clocks = new Map([['a', new SoundClock([{ t: 2000, do: 'lost', ms: 500 }])]]);
    expect(heardIn(new FilmClock(3000, []), played, clocks)).toEqual([
      { from: 0, to: 1, take: 'a', at: 1 },
      { from: 1.5, to: 3, take: 'a', at: 2 },
    ]);
  });

  it('leaves no gap, whatever plays and wherever the film stands still', () => {
    const anyParts = fc.array(
      fc.record({
        take: fc.constantFrom('a', 'b'),
        from: fc.nat(900),
        length: fc.integer({ min: 1, max: 900 }),
      }),
      { minLength: 1, maxLength: 6 },
    );
    const anyStops = fc.array(
      fc.record({ time: fc.nat(3000), text: fc.constant(''), seconds: fc.integer({ min: 1, max: 9 }) }),
    );
    fc.assert(
      fc.property(anyParts, anyStops, (parts, stops) => {
        const played = playedParts({ takes: [take('a', 1000), take('b', 1000, null)], parts });
        const clock = new FilmClock(
          played.reduce((sum, { length }) => sum + length, 0),
          holdsOf(stops),
        );
        const heard = heardIn(clock, played, new Map());
        heard.forEach(({ from }, i) => expect(from).toBeCloseTo(heard[i - 1]?.to ?? 0, 9));
        expect(heard.at(-1)!.to).toBeCloseTo(clock.length / 1000, 9);
      }),
    );
  });

  it('keeps its pitch and length when it comes at another rate', () => {
    const rate = 44_100;
    const tone = Float32Array.from({ length: rate / 10 }, (_, i) => Math.sin((2 * Math.PI * 440 * i) / rate));
    const other = atRate(tone, rate);
    expect(other).toHaveLength(SOUND_RATE / 10);
    other.forEach((one, i) => expect(one).toBeCloseTo(Math.sin((2 * Math.PI * 440 * i) / SOUND_RATE), 1));
    expect(atRate(tone, SOUND_RATE)).toBe(tone);
  });
});
