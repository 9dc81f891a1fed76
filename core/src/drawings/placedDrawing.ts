import type { Point } from '../neaten/trace.js';
import { boundsOfFlat, pointsOf } from '../geometry/path.js';
import type { Rect } from '../geometry/rect.js';
import { packPoint } from '../ink/points.js';
import type { MarkBody } from '../marks/markBody.js';
import type { InkStyle } from '../marks/stroke/strokeMark.js';
import type { DrawnLine, LineDrawing } from './lineDrawing.js';

/** Ink has points at most so far apart, page units: what is rubbed out ends where the rubber was. */
const STEP = 6;
/** Milliseconds that a hand takes for a page unit. */
const PACE = 2;

/** The box of a drawing, in its own units. */
export function drawingBounds({ lines }: LineDrawing): Rect {
  return boundsOfFlat(
    lines.flatMap(({ points }) => points),
    2,
  );
}

/**
 * A drawing as ink, and as paths where its lines are closed so that they can be filled: in the middle of a box (page units) and as
 * large as that, in its own proportions.
 */
export function placedDrawing(drawing: LineDrawing, box: Rect, ink: InkStyle): MarkBody[] {
  const own = drawingBounds(drawing);
  const scale = Math.sqrt(
    (Math.max(box.width, 1) * Math.max(box.height, 1)) / (Math.max(own.width, 1) * Math.max(own.height, 1)),
  );
  const [cx, cy] = [box.x + box.width / 2, box.y + box.height / 2];
  const place = ([x, y]: Point): Point => [
    round(cx + (x - own.x - own.width / 2) * scale),
    round(cy + (y - own.y - own.height / 2) * scale),
  ];
  return drawing.lines.map((line) => bodyOf(line, place, ink));
}

function bodyOf({ points, closed }: DrawnLine, place: (at: Point) => Point, ink: InkStyle): MarkBody {
  const places = pointsOf(points).map(place);
  if (!closed) return { kind: 'stroke', style: ink, points: asInk(places), pressure: false };
  const { colour, width, opacity } = ink;
  return {
    kind: 'path',
    course: 'straight',
    points: places.flat(),
    closed: true,
    heads: 'none',
    from: null,
    to: null,
    style: { line: colour, width, dash: 'solid', fill: null, opacity },
  };
}

function asInk(places: readonly Point[]): number[] {
  const [first, ...rest] = places as readonly [Point, ...Point[]];
  const points: number[] = packPoint(first[0], first[1], 0.5, 0);
  let [[ax, ay], time] = [first, 0];
  for (const [x, y] of rest) {
    const length = Math.hypot(x - ax, y - ay);
    const pieces = Math.max(1, Math.ceil(length / STEP));
    for (let i = 1; i <= pieces; i++) {
      const part = i / pieces;
      points.push(...packPoint(ax + (x - ax) * part, ay + (y - ay) * part, 0.5, time + length * PACE * part));
    }
    time += length * PACE;
    [ax, ay] = [x, y];
  }
  return points;
}

const round = (value: number) => Math.round(value * 100) / 100;
