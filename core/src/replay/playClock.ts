import { countWhile } from '../ops/countWhile.js';

/** A stretch of time, milliseconds since 1970-01-01 UTC. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
}

/** Something that happens in a playback, and from when to when it does. */
export interface PlayedThing<One> {
  readonly one: One;
  readonly from: number;
  readonly to: number;
}

/**
 * The time of a playback, which begins at 0 with the first thing that is done: as long as the real one, but for pauses in which
 * nothing is done that are longer than wanted.
 */
export class PlayClock {
  /** Where time goes otherwise than before, in real time and in that of the playback; both rise. */
  private readonly real: number[] = [];
  private readonly played: number[] = [];

  /** Of stretches in which something is done, in any order; no pause among them becomes longer than `longestPause` (ms). */
  constructor(stretches: readonly Stretch[], longestPause: number) {
    for (const { from, to } of busyTimes(stretches)) {
      const [before, then] = [this.real.at(-1), this.played.at(-1)];
      const start = before === undefined ? 0 : then! + Math.min(from - before, longestPause);
      this.real.push(from, to);
      this.played.push(start, start + to - from);
    }
  }

  /** How long the playback is, milliseconds. */
  get length(): number {
    return this.played.at(-1) ?? 0;
  }

  /** When in the playback something is that was at a real time. */
  toPlay(real: number): number {
    return along(this.real, this.played, real);
  }

  /** When something really was that is at a time of the playback. */
  toReal(played: number): number {
    return along(this.played, this.real, played);
  }

  /** When things play; all of them do. */
  playing<One extends Stretch>(things: readonly One[]): PlayedThing<One>[] {
    return things.map((one) => ({ one, from: this.toPlay(one.from), to: this.toPlay(one.to) }));
  }
}

/** Stretches that overlap or touch are one; in order. */
function busyTimes(stretches: readonly Stretch[]): Stretch[] {
  const busy: { from: number; to: number }[] = [];
  for (const { from, to } of [...stretches].sort((a, b) => a.from - b.from)) {
    const last = busy.at(-1);
    if (last && from <= last.to) last.to = Math.max(last.to, to);
    else busy.push({ from, to });
  }
  return busy;
}

/** Between knots in a straight line, beyond them as at the last one. */
function along(from: readonly number[], to: readonly number[], place: number): number {
  if (from.length === 0) return 0;
  const after = countWhile(from.length, (i) => from[i]! <= place);
  if (after === 0) return to[0]!;
  if (after === from.length) return to.at(-1)!;
  const share = (place - from[after - 1]!) / (from[after]! - from[after - 1]!);
  return to[after - 1]! + share * (to[after]! - to[after - 1]!);
}
