import type { Gauge } from '../marks/measures.js';
import type { Point } from '../measure/outline.js';
import type { Compasses, Instrument } from './instrument.js';
import { onInstrument, onPage } from './place.js';
import type { StraightEdge } from './shapes.js';
import { straightEdges } from './shapes.js';

/** What holds ink to a line, however the hand shakes. */
export interface InkGuide {
  /** Takes where the hand is now. Returns where its ink is. */
  follow(hand: Point): Point;
  /** What has been drawn so far, as points of a line. */
  drawn(): Point[];
}

/** An arc is drawn by points so close that nothing between them is farther than this off it; page units. */
const SAGITTA = 0.03;
/** Compasses that have come so near to where they began have drawn a full circle, degrees. */
const CLOSING = 4;

/** What guides ink that begins at a point of the page within `reach` of an instrument's edge; the nearest edge does. */
export function inkGuideAt(
  instruments: readonly Instrument[],
  at: Point,
  reach: number,
  gauge: Gauge,
): InkGuide | undefined {
  let [best, least] = [undefined as StraightEdge | undefined, reach];
  for (const edge of instruments.flatMap((each) => straightEdges(each, gauge))) {
    const distance = distanceTo(edge, at);
    if (distance <= least) [best, least] = [edge, distance];
  }
  return best && new EdgeGuide(best, at);
}

/** Holds ink to a straight edge, as far as that goes. */
export class EdgeGuide implements InkGuide {
  private readonly length: number;
  private least: number;
  private most: number;
  private readonly began: number;

  constructor(
    private readonly edge: StraightEdge,
    start: Point,
  ) {
    this.length = lengthOf(edge);
    this.began = this.least = this.most = this.along(start);
  }

  follow(hand: Point): Point {
    const at = this.along(hand);
    this.least = Math.min(this.least, at);
    this.most = Math.max(this.most, at);
    return this.point(at);
  }

  drawn(): Point[] {
    const [least, most] = [this.stepped(this.least), this.stepped(this.most)];
    const backwards = this.began - this.least > this.most - this.began;
    const ends = backwards ? [most, least] : [least, most];
    return ends.map((at) => this.point(at));
  }

  /** How far along the edge a point of the page is. */
  private along([x, y]: Point): number {
    const { from, to } = this.edge;
    const along = ((x - from[0]) * (to[0] - from[0]) + (y - from[1]) * (to[1] - from[1])) / this.length;
    return Math.min(this.length, Math.max(0, along));
  }

  /** The nearest mark of the scale, where lines go from mark to mark. */
  private stepped(at: number): number {
    const { steps } = this.edge;
    if (!steps) return at;
    const { zero, step } = steps;
    const last = Math.floor((this.length - zero) / step + 1e-9);
    return zero + Math.min(last, Math.max(0, Math.round((at - zero) / step))) * step;
  }

  private point(at: number): Point {
    const { from, to } = this.edge;
    const part = at / this.length;
    return [from[0] + (to[0] - from[0]) * part, from[1] + (to[1] - from[1]) * part];
  }
}

/** Holds ink to the circle of a pair of compasses, which turn with the hand, no farther than once round. */
export class CircleGuide implements InkGuide {
  /** Degrees clockwise from where they began. */
  private turn = 0;
  private least = 0;
  private most = 0;
  private last = 0;

  constructor(private readonly compasses: Compasses) {}

  follow(hand: Point): Point {
    const [x, y] = onInstrument(this.compasses, hand);
    const now = (Math.atan2(y, x) * 180) / Math.PI;
    this.turn += ((((now - this.last) % 360) + 540) % 360) - 180;
    this.last = now;
    this.least = Math.max(Math.min(this.least, this.turn), this.most - 360);
    this.most = Math.min(Math.max(this.most, this.turn), this.least + 360);
    return this.point(this.turn);
  }

  /** How the compasses lie now. */
  get now(): Compasses {
    const turn = (((this.compasses.turn + this.turn) % 360) + 360) % 360;
    return { ...this.compasses, turn };
  }

  drawn(): Point[] {
    const sweep = this.most - this.least;
    const full = sweep >= 360 - CLOSING;
    const backwards = -this.least > this.most;
    const from = full ? 0 : backwards ? this.most : this.least;
    const whole = full ? 360 : sweep;
    return this.arc(from, (backwards ? -1 : 1) * whole);
  }

  private arc(from: number, sweep: number): Point[] {
    const { radius } = this.compasses;
    const step = (2 * Math.acos(Math.max(0, 1 - SAGITTA / radius)) * 180) / Math.PI;
    const count = Math.max(2, Math.ceil(Math.abs(sweep) / step));
    return Array.from({ length: count + 1 }, (_, n) => this.point(from + (sweep * n) / count));
  }

  private point(turn: number): Point {
    const { compasses } = this;
    return onPage({ ...compasses, turn: compasses.turn + turn }, [compasses.radius, 0]);
  }
}

/** An arc of so many degrees that compasses draw from where they are, clockwise; back where it is less than 0. */
export function arcOf(compasses: Compasses, degrees: number): Point[] {
  const guide = new CircleGuide(compasses);
  const steps = Math.max(1, Math.ceil(Math.abs(degrees) / 90));
  for (let n = 1; n <= steps; n++) {
    const turn = compasses.turn + (degrees * n) / steps;
    guide.follow(onPage({ ...compasses, turn }, [compasses.radius, 0]));
  }
  return guide.drawn();
}

function lengthOf({ from, to }: StraightEdge): number {
  return Math.hypot(to[0] - from[0], to[1] - from[1]);
}

function distanceTo({ from, to }: StraightEdge, [x, y]: Point): number {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const part = Math.min(1, Math.max(0, ((x - from[0]) * dx + (y - from[1]) * dy) / (dx * dx + dy * dy)));
  return Math.hypot(x - from[0] - part * dx, y - from[1] - part * dy);
}
