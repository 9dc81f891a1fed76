import { STRIDE } from '../ink/points.js';
import type { Focus, Playing } from '../live/scene.js';
import { countWhile } from '../ops/countWhile.js';
import type { Span } from '../replay/replay.js';
import { SoundClock } from './soundClock.js';
import type { Noted, NotedLive, NotedPoint, NotedWisp } from './noted.js';

/** Somebody who points, with where they pointed a moment ago, the newest last; `age` in milliseconds. */
export interface ShownPoint extends Omit<NotedPoint, 'x' | 'y'> {
  readonly trail: readonly { x: number; y: number; age: number }[];
}

/** Ink that fades, as much of it as is drawn. */
export interface ShownWisp extends Omit<NotedWisp, 'fade'> {
  /** How much of it is still to be seen, 0 to 1. */
  readonly left: number;
}

/** What was shown at a moment of a take beside its pages. */
export interface Shown {
  readonly focus: Focus | null;
  /** Patches that were taken away. */
  readonly uncovered: readonly string[];
  readonly playing: Playing | null;
  /** What moved under the marks; its picture is in the take's video. */
  readonly live: NotedLive | null;
  readonly points: readonly ShownPoint[];
  readonly wisps: readonly ShownWisp[];
}

/** How long a trail lasts, and how long one who does not move is seen; milliseconds. */
const TRAIL_MS = 350;
const SILENCE_MS = 4000;
/** The last part of its time in which ink fades. */
const FADING_MS = 700;

type Of<Kind extends Noted['do']> = Extract<Noted, { do: Kind }>;

/** What was noted in a take, ready to be looked at at any time. */
export class NotedTake {
  /** Where in the take's sound its times are heard. */
  readonly sound: SoundClock;
  private readonly foci: readonly Of<'focus'>[];
  private readonly uncovered: readonly Of<'uncovered'>[];
  private readonly playing: readonly Of<'playing'>[];
  private readonly live: readonly Of<'live'>[];
  private readonly pointing: readonly (Of<'point'> | Of<'rest'>)[];
  private readonly wisps: readonly Of<'wisp'>[];

  /** `noted` is in the order of its times. */
  constructor(noted: readonly Noted[]) {
    this.foci = noted.filter((one) => one.do === 'focus');
    this.uncovered = noted.filter((one) => one.do === 'uncovered');
    this.playing = noted.filter((one) => one.do === 'playing');
    this.sound = new SoundClock(noted);
    this.live = noted.filter((one) => one.do === 'live');
    this.pointing = noted.filter((one) => one.do === 'point' || one.do === 'rest');
    this.wisps = noted.filter((one) => one.do === 'wisp');
  }

  /** What was shown so many milliseconds after the take began. */
  at(time: number): Shown {
    return {
      focus: lastBy(this.foci, time)?.focus ?? null,
      uncovered: lastBy(this.uncovered, time)?.marks ?? [],
      playing: lastBy(this.playing, time)?.playing ?? null,
      live: lastBy(this.live, time)?.live ?? null,
      points: this.pointsAt(time),
      wisps: this.wisps.flatMap((wisp) => wispAt(wisp, time)),
    };
  }

  /** When something moved under the marks within a stretch; milliseconds since the take began. */
  liveSpans(from: number, to: number): Span[] {
    return this.live.flatMap(({ t, live }, i) => {
      const span = { from: Math.max(from, t), to: Math.min(to, this.live[i + 1]?.t ?? Infinity) };
      return live && span.to > span.from ? [span] : [];
    });
  }

  private pointsAt(time: number): ShownPoint[] {
    const points = new Map<number, ShownPoint>();
    const from = countWhile(this.pointing.length, (i) => this.pointing[i]!.t < time - SILENCE_MS);
    for (let i = from; i < this.pointing.length && this.pointing[i]!.t <= time; i++) {
      const one = this.pointing[i]!;
      if (one.do === 'rest') {
        points.delete(one.who);
        continue;
      }
      const { who, colour, page, x, y, t } = one;
      const before = points.get(who);
      const trail = before?.page === page ? before.trail : [];
      points.set(who, { who, colour, page, trail: [...trail.filter(isFresh), { x, y, age: time - t }] });
    }
    return [...points.values()];
  }
}

const isFresh = ({ age }: { age: number }) => age < TRAIL_MS;

function lastBy<One extends { t: number }>(noted: readonly One[], time: number): One | undefined {
  return noted[countWhile(noted.length, (i) => noted[i]!.t <= time) - 1];
}

/** A wisp that was complete at `t`, as it was at a time; none before it was begun and after it is gone. */
function wispAt({ t, fade, points, page, style }: Of<'wisp'>, time: number): ShownWisp[] {
  const begun = t - (points.at(-1) ?? 0);
  if (time < begun || time >= t + fade) return [];
  const count = countWhile(points.length / STRIDE, (i) => points[i * STRIDE + 3]! <= time - begun);
  const left = Math.max(0, Math.min(1, (fade - (time - t)) / FADING_MS));
  return [{ page, style, points: points.slice(0, count * STRIDE), left }];
}
