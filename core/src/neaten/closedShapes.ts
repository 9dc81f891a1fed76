import { cloudReading } from './clouds.js';
import type { Cornered } from './corners.js';
import { angleBetween, corneredTraces, hasFlatCorner, tremorOf } from './corners.js';
import { polygonReadings } from './polygonKinds.js';
import type { NeatBody, Reading } from './reading.js';
import { fitCost, inBox, throughCorners } from './reading.js';
import { fitCircle, fitEllipse } from './rounds.js';
import { pentagram } from './pentagram.js';
import type { Trace } from './trace.js';
import { offStep } from './upright.js';

/** Ten corners, or a star with eight points. */
const MOST_CORNERS = 16;
/** Most corners of a polygon that is no star. */
const MOST_SIDES = 10;
/** A polygon of more corners could be something round: what it costs where its corners are not sharp. */
const FEW = 5;
const SHARP = 0.6;
const BLUNT = 45;
/** By how much the axes of a circle differ that a hand draws, as a part. */
const ROUNDNESS = 0.085;
/** What it is worth that a circle says more than an ellipse. */
const SAYS_MORE = 3.4;

/** What a line can be whose ends meet. */
export function closedReadings(trace: Trace): Reading[] {
  const divided = corneredTraces(trace, MOST_CORNERS);
  const tremor = tremorOf(divided);
  const gap = 0.5 * (trace.gap / 0.05) ** 2;
  const readings = [
    ...divided.slice(2).flatMap((each) => polygons(each, tremor)),
    ...rounds(trace, tremor),
    ...[pentagram(divided[4], tremor), cloudReading(trace, tremor)].filter((each) => each !== undefined),
  ];
  return readings.map((reading) => ({ ...reading, cost: reading.cost + gap }));
}

function polygons(cornered: Cornered, tremor: number): Reading[] {
  const { corners, off, sharpness } = cornered;
  if (corners.length < 3 || hasFlatCorner(cornered, true) || Math.abs(turns(corners) - 1) > 0.1) return [];
  const blunt = corners.length > FEW ? BLUNT * Math.max(SHARP - 0.8, SHARP - sharpness) : 0;
  const fit = fitCost(off, tremor, corners.length) + blunt;
  return polygonReadings(corners)
    .filter(({ kind }) => kind === 'star' || corners.length <= MOST_SIDES)
    .map(({ kind, corners: neat, cost }) => ({
      kind,
      body: throughCorners(neat, true),
      cost: fit + cost,
      off,
    }));
}

/** How often the sides turn round. */
function turns(corners: readonly (readonly [number, number])[]): number {
  const count = corners.length;
  const sum = corners.reduce((all, [x, y], i) => {
    const [a, b] = [corners[(i - 1 + count) % count]!, corners[(i + 1) % count]!];
    return all + angleBetween(x - a[0], y - a[1], b[0] - x, b[1] - y);
  }, 0);
  return Math.abs(sum) / (2 * Math.PI);
}

function rounds(trace: Trace, tremor: number): Reading[] {
  const [circle, ellipse] = [fitCircle(trace), fitEllipse(everySecond(trace))];
  if (!circle || !ellipse) return [];
  const off = ellipse.off / trace.size;
  const fit = fitCost(off, tremor, 3);
  const uneven = Math.log(ellipse.a / ellipse.b) / ROUNDNESS;
  return [
    {
      kind: 'circle',
      body: ellipseBody(circle.x, circle.y, circle.radius, circle.radius, 0),
      cost: fit + (uneven * uneven) / 2 - SAYS_MORE,
      off: circle.off / trace.size,
    },
    {
      kind: 'ellipse',
      body: ellipseBody(ellipse.x, ellipse.y, ellipse.a, ellipse.b, upright(ellipse.turn)),
      cost: fit,
      off,
    },
  ];
}

/** Level or upright where it nearly is, degrees from -90 to 90. */
function upright(turn: number): number {
  const off = (offStep(turn, 90) * 180) / Math.PI;
  const degrees = (offStep(turn, 180) * 180) / Math.PI;
  return Math.abs(off) < 9 ? degrees - off : degrees;
}

function ellipseBody(x: number, y: number, a: number, b: number, degrees: number): NeatBody {
  return inBox('ellipse', { x: x - a, y: y - b, width: 2 * a, height: 2 * b }, degrees);
}

/** Half of the points say as much about something round. */
function everySecond({ x, y }: Trace): Pick<Trace, 'x' | 'y'> {
  const half = (values: Float64Array) => values.filter((_, i) => i % 2 === 0);
  return { x: half(x), y: half(y) };
}
