import { MAX_POINTS, packPoint, pointCount, STRIDE } from './points.js';
import { simplify } from './simplify.js';

export interface InkInput {
  /** Page units. */
  x: number;
  y: number;
  /** 0 to 1, or undefined where the device measures none. */
  pressure: number | undefined;
  /** Milliseconds since the stroke began. */
  time: number;
}

/** Points closer than this to the last one add nothing; page units. */
const MIN_STEP = 0.4;
/** How far a left-out point may lie from the finished stroke; page units. */
const TOLERANCE = 0.25;

/** Pressure that stands for speed (page units per ms) where none is measured: slow is firm. */
const SPEED = { still: 0.65, perUnit: 0.12, least: 0.35, inertia: 0.75 };

/**
 * Turns what a pointer reports into the points of a stroke: steadied, spaced, with a pressure. The
 * points are final as they come in, so a stroke does not change its look when the pen is lifted.
 */
export class StrokeBuilder {
  readonly points: number[] = [];
  private x = 0;
  private y = 0;
  private pressure: number = SPEED.still;
  private last: InkInput | undefined;

  /** `steadying` from 0 (follow the hand) to just below 1 (follow slowly). */
  constructor(private readonly steadying: number) {}

  add(input: InkInput): void {
    const { last } = this;
    this.last = input;
    if (!last) {
      [this.x, this.y] = [input.x, input.y];
      this.pressure = input.pressure ?? SPEED.still;
      return this.push(input.time);
    }
    this.x += (input.x - this.x) * (1 - this.steadying);
    this.y += (input.y - this.y) * (1 - this.steadying);
    this.pressure = input.pressure ?? this.fromSpeed(last, input);
    const [atX, atY] = this.points.slice(-STRIDE) as [number, number];
    if (Math.hypot(this.x - atX, this.y - atY) >= MIN_STEP) this.push(input.time);
  }

  /** The finished stroke: caught up with the pointer, without points that add nothing. */
  finish(): number[] {
    const { last } = this;
    const [atX, atY] = this.points.slice(-STRIDE) as [number, number];
    if (last && Math.hypot(last.x - atX, last.y - atY) >= MIN_STEP) {
      [this.x, this.y] = [last.x, last.y];
      this.push(last.time);
    }
    return simplify(this.points, TOLERANCE);
  }

  private push(time: number): void {
    if (pointCount(this.points) < MAX_POINTS) {
      this.points.push(...packPoint(this.x, this.y, this.pressure, Math.max(0, time)));
    }
  }

  private fromSpeed(from: InkInput, to: InkInput): number {
    const speed = Math.hypot(to.x - from.x, to.y - from.y) / Math.max(1, to.time - from.time);
    const wanted = Math.max(SPEED.least, SPEED.still - SPEED.perUnit * speed);
    return this.pressure * SPEED.inertia + wanted * (1 - SPEED.inertia);
  }
}
