import type { Noted } from './noted.js';

/** A stretch of a take in which sound was kept, and where in the sound it begins; milliseconds. */
export interface SoundStretch {
  readonly from: number;
  readonly to: number;
  readonly at: number;
}

/** Where sound is missing: from a place in it on all of it was heard so much later, milliseconds. */
interface Step {
  readonly place: number;
  readonly lost: number;
}

/** Less than this nobody notices, milliseconds, and a gap of it would be heard as a click. */
const LEAST_LOST = 20;
/** What the last pieces tell may be their own delay, since no piece after them tells otherwise. */
const UNSURE = 3;

/**
 * Where in the sound of a take its times are heard. On a busy machine sound is lost that comes in while nobody takes it, so that
 * the sound is shorter than the take; it is found out by when its pieces came.
 */
export class SoundClock {
  private readonly steps: readonly Step[];

  /** `noted` is in the order of its times. */
  constructor(noted: readonly Noted[]) {
    const lost = noted.filter((one) => one.do === 'lost');
    this.steps = lost.length > 0 ? stepsOf(lost) : stepsBy(noted.filter((one) => one.do === 'sound'));
  }

  /** The place in the sound that was heard at a time of the take; where sound is missing, where it goes on. */
  toSound(time: number): number {
    let lost = 0;
    for (const step of this.steps) {
      if (time - lost <= step.place) break;
      if (time - step.lost < step.place) return step.place;
      lost = step.lost;
    }
    return time - lost;
  }

  /** The time of the take at which a place in its sound was heard. */
  toTake(place: number): number {
    return place + (this.steps.findLast((step) => step.place < place)?.lost ?? 0);
  }

  /** What of the sound was heard in a stretch of the take. */
  stretches(from: number, to: number): SoundStretch[] {
    const begins = [{ place: 0, lost: 0 }, ...this.steps];
    return begins.flatMap(({ place, lost }, i) => {
      const end = begins[i + 1]?.place ?? Infinity;
      const [first, last] = [Math.max(from, place + lost), Math.min(to, end + lost)];
      return last > first ? [{ from: first, to: last, at: first - lost }] : [];
    });
  }

  /** What is to be noted of a stretch of the take whose sound is cut out with it. */
  lostIn(from: number, to: number): Extract<Noted, { do: 'lost' }>[] {
    let before = 0;
    return this.steps.flatMap(({ place, lost }) => {
      const [begin, end] = [Math.max(from, place + before), Math.min(to, place + lost)];
      before = lost;
      return end > begin
        ? [{ t: Math.round(begin - from), do: 'lost' as const, ms: Math.round(end - begin) }]
        : [];
    });
  }
}

function stepsOf(noted: readonly Extract<Noted, { do: 'lost' }>[]): Step[] {
  let lost = 0;
  return noted.map(({ t, ms }) => {
    const place = t - lost;
    lost += ms;
    return { place, lost };
  });
}

/**
 * How late a piece comes says how much of the sound before it is missing, and how long it took to come itself. What is missing
 * stays missing, so it is the least that any later piece says.
 */
function stepsBy(noted: readonly Extract<Noted, { do: 'sound' }>[]): Step[] {
  const late = noted.map(({ t, at }) => t - at);
  for (let i = late.length - 2; i >= 0; i--) late[i] = Math.min(late[i]!, late[i + 1]!);
  const steps: Step[] = [];
  for (let i = 1; i < late.length - UNSURE; i++) {
    const lost = late[i]! - late[0]!;
    // Somewhere between two pieces.
    const place = (noted[i - 1]!.at + noted[i]!.at) / 2;
    if (lost - (steps.at(-1)?.lost ?? 0) >= LEAST_LOST) steps.push({ place, lost });
  }
  return steps;
}
