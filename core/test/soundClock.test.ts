import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Noted } from '../src/explain/index.js';
import { SoundClock } from '../src/explain/index.js';

/** How long a piece of sound takes to come at least, milliseconds. */
const DELAY = 70;

/** What is noted of a take while pieces of a second come, each late by so much more, some after sound was lost. */
function recorded(pieces: readonly { late: number; lost: number }[]): Noted[] {
  let lost = 0;
  return pieces.map((piece, i) => {
    lost += piece.lost;
    return { t: (i + 1) * 1000 + DELAY + piece.late, do: 'sound', at: (i + 1) * 1000 - lost };
  });
}

const pieces = (count: number) => Array.from({ length: count }, () => ({ late: 0, lost: 0 }));
const anyPieces = fc.array(
  fc.record({
    late: fc.oneof({ weight: 3, arbitrary: fc.nat(8) }, { weight: 1, arbitrary: fc.nat(900) }),
    lost: fc.oneof({ weight: 8, arbitrary: fc.constant(0) }, { weight: 1, arbitrary: fc.nat(700) }),
  }),
  { maxLength: 40 },
);

describe('where in its sound a take is heard', () => {
  it('is where it is in the take as long as nothing is lost, however late pieces come', () => {
    const late = pieces(20).map((piece, i) => ({ ...piece, late: (i * 37) % 200 }));
    const clock = new SoundClock(recorded([{ late: 0, lost: 0 }, ...late, ...pieces(4)]));
    for (const time of [0, 5000, 19_000])
      expect([clock.toSound(time), clock.toTake(time)]).toEqual([time, time]);
  });

  it('is earlier from where sound was lost on', () => {
    const all = pieces(30);
    all[9]!.lost = 400;
    // What the machine did not take came late, too.
    all[9]!.late = 600;
    all[19]!.lost = 150;
    const clock = new SoundClock(recorded(all));
    expect(clock.toTake(8000)).toBe(8000);
    expect(clock.toTake(12_000)).toBe(12_400);
    expect(clock.toTake(25_000)).toBe(25_550);
    expect(clock.toSound(25_550)).toBe(25_000);
    expect(clock.stretches(0, 30_000)).toEqual([
      { from: 0, to: 9300, at: 0 },
      { from: 9700, to: 19_425, at: 9300 },
      { from: 19_575, to: 30_000, at: 19_025 },
    ]);
  });

  it('does not take the delay of the last pieces for a loss, which no later one could gainsay', () => {
    const all = [...pieces(10), { late: 300, lost: 0 }, { late: 250, lost: 0 }];
    expect(new SoundClock(recorded(all)).toTake(11_000)).toBe(11_000);
  });

  it('follows a clock that is slow, in steps that are not heard', () => {
    // 100 in a million, as cheap crystals are; by a datasheet's usual figure, from memory.
    const slow = Array.from({ length: 600 }, (_, i): Noted => {
      const at = (i + 1) * 1000;
      return { t: at + DELAY + at / 1e4, do: 'sound', at };
    });
    const clock = new SoundClock(slow);
    for (let at = 0; at < 595_000; at += 7000)
      expect(Math.abs(clock.toTake(at) - at * 1.0001)).toBeLessThan(22);
  });

  it('goes there and back, never backwards, and its stretches are all of the sound', () => {
    fc.assert(
      fc.property(anyPieces, fc.nat(40_000), fc.nat(40_000), (all, one, other) => {
        const clock = new SoundClock(recorded(all));
        const [first, last] = [Math.min(one, other), Math.max(one, other)];
        expect(clock.toSound(clock.toTake(first))).toBeCloseTo(first, 6);
        expect(clock.toTake(last)).toBeGreaterThanOrEqual(clock.toTake(first));
        expect(clock.toSound(last)).toBeGreaterThanOrEqual(clock.toSound(first));
        const stretches = clock.stretches(first, last);
        const heard = stretches.reduce((sum, { from, to }) => sum + to - from, 0);
        expect(heard).toBeCloseTo(clock.toSound(last) - clock.toSound(first), 6);
        for (const { from, at } of stretches) expect(clock.toSound(from)).toBeCloseTo(at, 6);
      }),
    );
  });

  it('is the same in a stretch that is cut out', () => {
    fc.assert(
      fc.property(anyPieces, fc.nat(30_000), fc.integer({ min: 1, max: 20_000 }), (all, from, length) => {
        const whole = new SoundClock(recorded(all));
        const cut = new SoundClock(whole.lostIn(from, from + length));
        for (let time = 0; time <= length; time += Math.ceil(length / 9))
          expect(
            Math.abs(cut.toSound(time) - (whole.toSound(from + time) - whole.toSound(from))),
          ).toBeLessThan(3);
      }),
    );
  });
});
