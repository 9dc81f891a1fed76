import { getStroke } from 'perfect-freehand';
import type { InkStyle } from '../marks/stroke/strokeMark.js';
import type { Path, PathStep } from '../geometry/path.js';
import { STRIDE } from './points.js';

interface Ink {
  points: readonly number[];
  style: InkStyle;
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

/**
 * The corners of a stroke's outline. The outline itself is the smooth ring through the middles of
 * the sides between them, see `outline`. Steadying and speed were worked into the points when they
 * came in, so here they are taken as they are.
 */
export function outlineCorners({ points, style }: Ink, finished = true): number[][] {
  return getStroke(withMiddle(inputOf(points)), {
    size: style.width,
    thinning: THINNING[style.nature],
    smoothing: 0.5,
    streamline: 0,
    simulatePressure: false,
    last: finished,
  });
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

function inputOf(points: readonly number[]): InputPoint[] {
  const input: InputPoint[] = [];
  for (let i = 0; i < points.length; i += STRIDE) input.push([points[i]!, points[i + 1]!, points[i + 2]!]);
  return input;
}

/** A line of two points gets some between, with their pressure; the package would put in its own. */
function withMiddle(input: InputPoint[]): InputPoint[] {
  const [a, b] = input;
  if (input.length !== 2 || !a || !b) return input;
  const between = (t: number) => a.map((value, i) => value + (b[i]! - value) * t) as InputPoint;
  return [a, between(0.25), between(0.5), between(0.75), b];
}
