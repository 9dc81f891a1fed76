import type { Edge } from '../construct/edges.js';
import { footOf } from '../construct/edges.js';
import type { Point } from '../measure/outline.js';
import type { Dividers, Instrument, Protractor } from './instrument.js';
import { directionOf, fullTurn, onInstrument, onPage } from './place.js';

/** A line that passes the middle of a protractor so near goes through it, page units. */
const NEAR = 6;
/** An arm of an angle is at least so long from its corner, page units. */
const LEAST_ARM = 12;
/** Readings that differ less are one, degrees. */
const SAME = 0.2;

/** The angle of an instrument as it is read: counterclockwise from level, degrees; up to 180 where both ends are alike. */
export function angleOf({ kind, turn }: Instrument): number {
  const angle = fullTurn(-turn);
  return kind === 'ruler' && angle >= 180 ? fullTurn(angle - 180) : angle;
}

/** The turn at which an instrument reads an angle; a ruler keeps the end that its zero is at. */
export function turnReading(instrument: Instrument, angle: number): number {
  const turn = fullTurn(-angle);
  if (instrument.kind !== 'ruler') return turn;
  const other = fullTurn(turn + 180);
  const off = (each: number) => Math.abs(fullTurn(each - instrument.turn + 180) - 180);
  return off(other) < off(turn) ? other : turn;
}

/**
 * The angles at which lines leave the middle of a protractor, degrees counterclockwise from its base line, the least first.
 * Lines along the base line itself are not among them.
 */
export function protractorReadings(protractor: Protractor, edges: readonly Edge[]): number[] {
  const middle: Point = [protractor.x, protractor.y];
  const most = protractor.full ? 360 - SAME : 180 - SAME;
  const angles = edges
    .filter((edge) => passes(edge, middle))
    .flatMap((edge) => edge.filter((end) => apart(end, middle) >= LEAST_ARM))
    .map((end) => {
      const [x, y] = onInstrument(protractor, end);
      return fullTurn((Math.atan2(-y, x) * 180) / Math.PI);
    })
    .filter((angle) => angle > SAME && angle < most)
    .sort((a, b) => a - b);
  return angles.filter((angle, i) => i === 0 || angle - angles[i - 1]! > SAME);
}

/**
 * A protractor laid on the corner nearest to its middle within `reach` page units, its base line on that edge there which it
 * is turned from the least; as it lies where there is none.
 */
export function laidOnCorner(protractor: Protractor, edges: readonly Edge[], reach: number): Protractor {
  const middle: Point = [protractor.x, protractor.y];
  const ends = edges.flatMap(([a, b]) => [
    { at: a, other: b },
    { at: b, other: a },
  ]);
  const nearest = ends
    .filter(({ at }) => apart(at, middle) <= reach)
    .sort((a, b) => apart(a.at, middle) - apart(b.at, middle))[0];
  if (!nearest) return protractor;
  const [x, y] = nearest.at;
  const turns = ends
    .filter(({ at }) => apart(at, nearest.at) < 1)
    .map(({ at, other }) => directionOf(at, other));
  const off = (turn: number) => Math.abs(fullTurn(turn - protractor.turn + 180) - 180);
  const turn = turns.sort((a, b) => off(a) - off(b))[0]!;
  return { ...protractor, x, y, ...(off(turn) <= LYING && { turn }) };
}

/** A base line that is turned so little from an edge is laid on it, degrees. */
const LYING = 12;

/** Dividers stepped on once: their first point where the second one was, in the same direction. */
export function steppedOn(dividers: Dividers): Dividers {
  const [x, y] = onPage(dividers, [dividers.radius, 0]);
  return { ...dividers, x, y };
}

function passes(edge: Edge, middle: Point): boolean {
  const { foot, part } = footOf(edge, middle);
  if (part >= 0 && part <= 1) return apart(foot, middle) <= NEAR;
  return edge.some((end) => apart(end, middle) <= NEAR);
}

function apart(a: Point, b: Point): number {
  return Math.hypot(a[0] - b[0], a[1] - b[1]);
}
