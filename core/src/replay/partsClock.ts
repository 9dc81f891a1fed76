import { countWhile } from '../ops/countWhile.js';
import type { PlayedThing, Stretch } from './playClock.js';

/** The time of a playback of some stretches of real time, one after the other, in any order; begins at 0. */
export class PartsClock {
  /** When each stretch begins to play, and at last where all ends. */
  private readonly starts: readonly number[];

  constructor(private readonly parts: readonly Stretch[]) {
    const starts = [0];
    for (const { from, to } of parts) starts.push(starts.at(-1)! + to - from);
    this.starts = starts;
  }

  /** How long the playback is, milliseconds. */
  get length(): number {
    return this.starts.at(-1)!;
  }

  /** When something really was that is at a time of the playback. Where a stretch ends and the next begins, it is the next. */
  toReal(played: number): number {
    if (this.parts.length === 0) return 0;
    const at = Math.max(0, countWhile(this.parts.length, (i) => this.starts[i]! <= played) - 1);
    const { from, to } = this.parts[at]!;
    return Math.min(to, from + Math.max(0, played - this.starts[at]!));
  }

  /** When in the playback something is that was at a real time: where that plays first, else where the next later stretch begins. */
  toPlay(real: number): number {
    const within = this.parts.findIndex(({ from, to }) => real >= from && real <= to);
    if (within >= 0) return this.starts[within]! + real - this.parts[within]!.from;
    const after = this.parts.findIndex(({ from }) => from > real);
    return after < 0 ? this.length : this.starts[after]!;
  }

  /**
   * What of things that happen plays, and when: things that end within a stretch, and not just as it begins, for then they
   * are there already.
   */
  playing<One extends Stretch>(things: readonly One[]): PlayedThing<One>[] {
    return this.parts.flatMap(({ from, to }, i) => {
      const start = this.starts[i]! - from;
      return things
        .filter((one) => one.to > from && one.to <= to)
        .map((one) => ({ one, from: start + Math.max(from, one.from), to: start + one.to }));
    });
  }
}
