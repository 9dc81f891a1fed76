import type { Cornered } from './corners.js';
import { angleBetween, corneredTraces, hasFlatCorner, tremorOf } from './corners.js';
import type { Reading } from './reading.js';
import { fitCost, throughCorners } from './reading.js';
import type { FittedCircle } from './rounds.js';
import { fitCircle } from './rounds.js';
import type { Point, Trace } from './trace.js';
import { apart } from './trace.js';
import { uprightSides } from './upright.js';

/** Most straight pieces of an open line. */
export const MOST_PIECES = 12;
/** An arc goes round by at least this, degrees; a flatter one is a crooked line. */
const LEAST_SWEEP = 28;

/** What a line with two ends can be: straight, bent, or part of a circle. */
export function openReadings(trace: Trace, divided = corneredTraces(trace, MOST_PIECES)): Reading[] {
  const tremor = tremorOf(divided);
  const readings = divided
    .filter((each, i) => i === 0 || !hasFlatCorner(each, false))
    .map((each) => pieces(each, tremor));
  const arc = arcReading(trace, tremor);
  return arc ? [...readings, arc] : readings;
}

function pieces({ corners, off }: Cornered, tremor: number): Reading {
  const cost = fitCost(off, tremor, corners.length - 1);
  const body = throughCorners(uprightSides(corners, false), false);
  return { kind: corners.length === 2 ? 'line' : 'polyline', body, cost, off };
}

function arcReading(trace: Trace, tremor: number): Reading | undefined {
  const circle = fitCircle(trace);
  if (!circle || circle.radius > 4 * trace.size) return undefined;
  const sweep = sweepOf(trace, circle);
  const degrees = (Math.abs(sweep) * 180) / Math.PI;
  if (degrees < LEAST_SWEEP || degrees > 345) return undefined;
  const first = Math.atan2(trace.y[0]! - circle.y, trace.x[0]! - circle.x);
  const at = (part: number): Point => [
    circle.x + circle.radius * Math.cos(first + part * sweep),
    circle.y + circle.radius * Math.sin(first + part * sweep),
  ];
  const body = throughCorners([at(0), at(0.5), at(1)], false, 'arc');
  const off = circle.off / trace.size;
  return { kind: 'arc', body, cost: fitCost(off, tremor, 1.9), off };
}

/** How far round a middle the trace goes, radians, positive clockwise on screen. */
export function sweepOf(
  { x, y }: Pick<Trace, 'x' | 'y'>,
  { x: cx, y: cy }: Pick<FittedCircle, 'x' | 'y'>,
): number {
  let sweep = 0;
  for (let i = 1; i < x.length; i++)
    sweep += angleBetween(x[i - 1]! - cx, y[i - 1]! - cy, x[i]! - cx, y[i]! - cy);
  return sweep;
}

/** Whether a short piece of a line is about straight, by how far its ends are apart. */
export function isAboutStraight(line: readonly Point[]): boolean {
  let length = 0;
  for (let i = 1; i < line.length; i++) length += apart(line[i - 1]!, line[i]!);
  return apart(line[0]!, line.at(-1)!) > 0.84 * length;
}
