/** A place where a film stands still, milliseconds of the playback, and for how long. */
export interface Hold {
  readonly at: number;
  readonly length: number;
  /** What is to be done meanwhile; may be empty. */
  readonly text: string;
  /** Whether the time that is left is counted. */
  readonly isCounted: boolean;
}

/** What a film shows: a time of the playback, and where it stands still why, and for how long yet (milliseconds). */
export interface FilmMoment {
  readonly time: number;
  readonly hold?: Hold;
  readonly left?: number;
}

/** A stretch of a film, in which it plays on from `from`, or stands still where that is undefined; milliseconds. */
export interface FilmStretch {
  readonly from: number | undefined;
  readonly length: number;
}

/** How long a film stands still at a stop of which no time is said; milliseconds. */
export const USUAL_HOLD_MS = 3000;

/** Where a film of an explanation stands still: at its stops, since it cannot wait until whoever watches goes on. */
export function holdsOf(
  stops: readonly { time: number; text: string; seconds: number | null }[],
): readonly Hold[] {
  return stops.map(({ time, text, seconds }) => ({
    at: time,
    text,
    length: seconds === null ? USUAL_HOLD_MS : seconds * 1000,
    isCounted: seconds !== null,
  }));
}

/** The time of a film, which is that of a playback with places where it stands still. Both begin at 0, in milliseconds. */
export class FilmClock {
  readonly length: number;
  private readonly holds: readonly Hold[];

  /** Of a playback `played` ms long; `holds` in any order, of which those that lie outside of it are left out. */
  constructor(
    private readonly played: number,
    holds: readonly Hold[],
  ) {
    this.holds = holds.filter(({ at }) => at >= 0 && at <= played).sort((a, b) => a.at - b.at);
    this.length = played + this.holds.reduce((sum, { length }) => sum + length, 0);
  }

  /** What is shown at a time of the film. */
  at(film: number): FilmMoment {
    let before = 0;
    for (const hold of this.holds) {
      const begin = hold.at + before;
      if (film < begin) break;
      const left = begin + hold.length - film;
      if (left > 0) return { time: hold.at, hold, left };
      before += hold.length;
    }
    return { time: Math.max(0, Math.min(this.played, film - before)) };
  }

  /** When in the film a time of the playback is reached; before it stands still there. */
  toFilm(time: number): number {
    return this.holds.reduce((sum, { at, length }) => (at < time ? sum + length : sum), time);
  }

  /** The film from its beginning to its end. */
  stretches(): FilmStretch[] {
    const stretches: FilmStretch[] = [];
    let from = 0;
    for (const { at, length } of this.holds) {
      stretches.push({ from, length: at - from }, { from: undefined, length });
      from = at;
    }
    stretches.push({ from, length: this.played - from });
    return stretches.filter(({ length }) => length > 0);
  }
}
