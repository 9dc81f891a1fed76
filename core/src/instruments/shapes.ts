import type { Gauge } from '../marks/measures.js';
import type { Point } from '../measure/outline.js';
import type { EdgeUnit, Instrument, Protractor, Ruler, SetSquare } from './instrument.js';
import { onPage } from './place.js';
import { stepOf } from './scales.js';

/** How broad a ruler is, and how far it goes on beyond its scale; page units. */
export const RULER = { breadth: 100, margin: 12 } as const;
/** How far a protractor goes on below its base line, page units. */
export const PROTRACTOR_BASE = 16;

/** A straight edge along which ink runs. */
export interface StraightEdge {
  /** Its ends on the page. */
  from: Point;
  to: Point;
  /** Page units from `from` to the scale's zero, and from mark to mark; none where it has no scale, or lines go anywhere. */
  steps?: { zero: number; step: number };
}

/** Tangent of the smallest angle. */
const SLOPES = { square45: 1, square30: Math.tan(Math.PI / 6) } as const;

/** The corners of a set square in its own plane: the right angle, the end of the longer side, the end of the shorter one. */
export function squareCorners({
  kind,
  length,
  flip,
}: Pick<SetSquare, 'kind' | 'length' | 'flip'>): [Point, Point, Point] {
  const x = flip ? -length : length;
  return [
    [0, 0],
    [x, 0],
    [0, -length * SLOPES[kind]],
  ];
}

/** The corners of a ruler in its own plane. */
export function rulerCorners({ length }: Pick<Ruler, 'length'>): [Point, Point, Point, Point] {
  const { breadth, margin } = RULER;
  return [
    [-margin, 0],
    [length + margin, 0],
    [length + margin, breadth],
    [-margin, breadth],
  ];
}

/** The straight edges of an instrument on its page; `gauge` is the page's own. */
export function straightEdges(instrument: Instrument, gauge: Gauge): StraightEdge[] {
  switch (instrument.kind) {
    case 'ruler':
      return rulerEdges(instrument, gauge);
    case 'square45':
    case 'square30':
      return squareEdges(instrument, gauge);
    case 'protractor':
      return protractorEdges(instrument);
    case 'compasses':
    case 'dividers':
      return [];
  }
}

function rulerEdges(ruler: Ruler, gauge: Gauge): StraightEdge[] {
  const [a, b, c, d] = placed(ruler, rulerCorners(ruler));
  const [upper, lower] = ruler.units;
  return [
    { from: a, to: b, ...stepsOf(ruler.stepped, RULER.margin, upper, gauge) },
    { from: d, to: c, ...stepsOf(ruler.stepped, RULER.margin, lower, gauge) },
  ];
}

function squareEdges(square: SetSquare, gauge: Gauge): StraightEdge[] {
  const [right, far, up] = placed(square, squareCorners(square));
  const steps = stepsOf(square.stepped, 0, square.unit, gauge);
  return [
    { from: right, to: far, ...steps },
    { from: right, to: up, ...steps },
    { from: up, to: far },
  ];
}

/** Its arm, from the middle on; and the lower edge of a half one. */
function protractorEdges(protractor: Protractor): StraightEdge[] {
  const { radius, full } = protractor;
  const at = (point: Point) => onPage(protractor, point);
  const arm = { from: at([0, 0]), to: at(armEnd(protractor)) };
  if (full) return [arm];
  return [arm, { from: at([-radius, PROTRACTOR_BASE]), to: at([radius, PROTRACTOR_BASE]) }];
}

/** How far an arm reaches beyond its protractor, as part of the radius. */
const ARM = 1.25;

/** The end of a protractor's arm in its own plane. */
export function armEnd({ radius, arm }: Pick<Protractor, 'radius' | 'arm'>): Point {
  const angle = (arm * Math.PI) / 180;
  return [Math.cos(angle) * radius * ARM, -Math.sin(angle) * radius * ARM];
}

function placed<P extends readonly Point[]>(instrument: Instrument, corners: P): P {
  return corners.map((corner) => onPage(instrument, corner)) as unknown as P;
}

function stepsOf(stepped: boolean, zero: number, unit: EdgeUnit, gauge: Gauge) {
  return stepped ? { steps: { zero, step: stepOf(unit, gauge) } } : {};
}
