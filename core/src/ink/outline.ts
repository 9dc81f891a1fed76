import { getStroke } from 'perfect-freehand';
import type { InkStyle } from '../marks/stroke/strokeMark.js';
import type { Path, PathStep } from '../geometry/path.js';
import { pointSegmentDistanceSquared } from '../geometry/segment.js';
import { STRIDE } from './points.js';

/** What decides how a stroke's outline runs. */
export interface Ink {
  points: ArrayLike<number>;
  style: Pick<InkStyle, 'nature' | 'width'>;
}

type InputPoint = [x: number, y: number, pressure: number];

/** How strongly pressure changes the width of each nature, 0 (not at all) to 1. */
const THINNING: Record<InkStyle['nature'], number> = {
  pen: 0.5,
  pencil: 0.3,
  marker: 0,
  chalk: 0.2,
  highlighter: 0,
};

/** Corners that the package has at an end that is cut off. */
const CUT = 4;
/** How near to the middle of a round end a side may come that leads along it, as a part of its radius, squared. */
const BESIDE = 0.9;
/** Where the corners of a round start lie, and of a round end: half a turn, and a whole one more. */
const START = corners(9);
const END = corners(8);
const WHOLE_END = corners(26);

function corners(count: number): (readonly [cos: number, sin: number])[] {
  const angles = Array.from({ length: count }, (_, i) => ((i + 1) * Math.PI) / 9);
  return angles.map((angle) => [Math.cos(angle), Math.sin(angle)]);
}

/**
 * The corners of a stroke's outline. The outline itself is the smooth ring through the middles of
 * the sides between them, see `outline`. Steadying and speed were worked into the points when they
 * came in, so here they are taken as they are.
 */
export function outlineCorners({ points, style }: Ink, finished = true): number[][] {
  const cut = { cap: false };
  const input = inputOf(points);
  const ring = getStroke(withMiddle(input), {
    size: style.width,
    thinning: THINNING[style.nature],
    smoothing: 0.5,
    streamline: 0,
    simulatePressure: false,
    last: finished,
    start: cut,
    end: cut,
  });
  return withRoundEnds(ring, input[0]!, endOf(input));
}

/** Round ends instead of those cut off: the package's own have three times the corners that are seen. */
function withRoundEnds(ring: number[][], start: InputPoint, end: InputPoint): number[][] {
  // The corners of a cut lie opposite each other, with the end in the middle, and two by two beside each other.
  const isMiddle = (i: number, axis: 0 | 1) =>
    Math.abs(ring[i]![axis]! + ring[i + 3]![axis]! - 2 * end[axis]) < 1e-6;
  for (let i = 1; i + 2 * CUT < ring.length; i++) {
    if (!isMiddle(i, 0) || !isMiddle(i, 1)) continue;
    if (square(ring[i]!, ring[i + 1]!) > 1e-3 * square(ring[i]!, end)) continue;
    const left = ring.slice(0, i);
    const right = ring.slice(i + CUT, -CUT);
    const side = left.at(-1)!;
    const out = [end[1] - side[1]!, side[0]! - end[0]];
    const isCovered = leadsBack(end, out, side, left.at(-2)) && leadsBack(end, out, right[0]!, right[1]);
    return [
      ...left,
      ...roundEnd(side, end, isCovered ? END : WHOLE_END),
      ...right,
      ...roundEnd(right.at(-1)!, start, START),
    ];
  }
  return ring;
}

/**
 * Whether a side of a stroke, from the corner beside its end to the next, leads back along the half of the round end that
 * lies within the stroke; `out` is where the other half lies. Where it gets wide or turns just at its end, it does not.
 */
function leadsBack(end: InputPoint, out: number[], corner: number[], next: number[] | undefined): boolean {
  if (!next) return false;
  const [x, y] = end;
  const [[sideX, sideY], [nextX, nextY]] = [corner, next] as [[number, number], [number, number]];
  if ((nextX - x) * out[0]! + (nextY - y) * out[1]! > 0) return false;
  return pointSegmentDistanceSquared(x, y, sideX, sideY, nextX, nextY) > BESIDE * square(corner, end);
}

function square([ax, ay]: readonly number[], [bx, by]: readonly number[]): number {
  return (ax! - bx!) ** 2 + (ay! - by!) ** 2;
}

/** Corners round an end, after the one at its side. */
function roundEnd([sideX, sideY]: number[], [x, y]: InputPoint, turn: typeof START): number[][] {
  const [dx, dy] = [sideX! - x, sideY! - y];
  return turn.map(([cos, sin]) => [x + dx * cos - dy * sin, y + dx * sin + dy * cos]);
}

/**
 * The closed outline of a stroke, the one shape that canvas, SVG and PDF all fill: quadratic
 * curves through the middles of the sides between its corners. `finished` is false while the pen
 * is still down, so that the end follows the pen.
 */
export function outline(ink: Ink, finished = true): Path {
  const ring = outlineCorners(ink, finished);
  if (ring.length < 3) return [];
  const at = (i: number) => ring[i % ring.length] as [number, number];
  const middle = (i: number): [number, number] => [
    (at(i)[0] + at(i + 1)[0]) / 2,
    (at(i)[1] + at(i + 1)[1]) / 2,
  ];
  const path: PathStep[] = [['M', ...middle(0)]];
  for (let i = 1; i <= ring.length; i++) path.push(['Q', ...at(i), ...middle(i)]);
  path.push(['Z']);
  return path;
}

function inputOf(points: ArrayLike<number>): InputPoint[] {
  const input: InputPoint[] = [];
  for (let i = 0; i < points.length; i += STRIDE) input.push([points[i]!, points[i + 1]!, points[i + 2]!]);
  return input;
}

/** Where a stroke ends; a dot of one point reaches one unit on. */
function endOf(input: readonly InputPoint[]): InputPoint {
  const [x, y, pressure] = input.at(-1)!;
  return input.length > 1 ? [x, y, pressure] : [x + 1, y + 1, pressure];
}

/** A line of two points gets some between, with their pressure; the package would put in its own. */
function withMiddle(input: InputPoint[]): InputPoint[] {
  const [a, b] = input;
  if (input.length !== 2 || !a || !b) return input;
  const between = (t: number) => a.map((value, i) => value + (b[i]! - value) * t) as InputPoint;
  return [a, between(0.25), between(0.5), between(0.75), b];
}
