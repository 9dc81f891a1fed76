import { arrowReadings } from './arrows.js';
import { braceReading } from './braces.js';
import { closedReadings } from './closedShapes.js';
import { corneredTraces, tremorOf } from './corners.js';
import { MOST_PIECES, openReadings } from './openShapes.js';
import type { Reading, ShapeKind } from './reading.js';
import type { Point } from './trace.js';
import { closedTrace, joined, openTrace, pointsOfStroke, sizeOf } from './trace.js';

/** A smaller drawing is a dot, or a letter; page units. */
const LEAST_SIZE = 10;
/** More strokes are no one shape. */
const MOST_STROKES = 8;
/** What it costs to take a line as open whose ends meet. */
const ENDS_MEET = 9;

/**
 * What rough ink may mean as one shape, the likeliest first, each kind once. Points are those of strokes (`STRIDE` numbers
 * each), in page units. Empty where it is no shape.
 */
export function readShapes(strokes: readonly (readonly number[])[]): Reading[] {
  const lines = strokes.map(pointsOfStroke).filter((line) => line.length > 1);
  if (lines.length === 0 || lines.length > MOST_STROKES || sizeOf(lines) < LEAST_SIZE) return [];
  const line = joined(lines);
  return bestOfEachKind([...arrowReadings(lines), ...(line ? oneLine(line) : [])]);
}

function oneLine(line: readonly Point[]): Reading[] {
  const open = openTrace(line);
  const closed = closedTrace(line);
  const divided = corneredTraces(open, MOST_PIECES);
  const brace = braceReading(open, tremorOf(divided));
  const ends = closed ? Math.max(0, ENDS_MEET * (1 - closed.gap / 0.12)) : 0;
  const opened = [...openReadings(open, divided), ...(brace ? [brace] : [])];
  return [
    ...opened.map((reading) => ({ ...reading, cost: reading.cost + ends })),
    ...(closed ? closedReadings(closed) : []),
  ];
}

function bestOfEachKind(readings: readonly Reading[]): Reading[] {
  const best = new Map<ShapeKind, Reading>();
  for (const reading of readings) {
    const known = best.get(reading.kind);
    if (!known || reading.cost < known.cost) best.set(reading.kind, reading);
  }
  return [...best.values()].sort((a, b) => a.cost - b.cost);
}
