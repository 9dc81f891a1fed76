import { straightRing } from '../formulas/curves.js';
import type { FormulaFonts } from '../formulas/fonts.js';
import { ValueError } from '../formulas/faults.js';
import type { Rect } from '../geometry/rect.js';
import { rectsTouch } from '../geometry/rect.js';
import type { Drawing, DrawingPart } from '../marks/plot/plotMark.js';
import type { Ticks } from './axes.js';
import { axes, axisLabels, AXIS_NAMES, Frame, ground, ticksIn } from './axes.js';
import { curveOf, thinned } from './curve.js';
import type { RealFunction } from './functions.js';
import { functionOf } from './functions.js';
import { Labels, rounded } from './labels.js';
import type { MarkedPlace } from './markedPlaces.js';
import { markedPlaces } from './markedPlaces.js';
import type { Dash, PlotRecipe, PlottedCurve } from './recipe.js';
import type { Statement } from './statement.js';
import { heightsOf, statementOf } from './statement.js';

/** A curve of a plot, read. */
interface Read {
  look: PlottedCurve;
  statement: Statement;
  /** Of a statement about heights. */
  f: RealFunction | undefined;
}

/** A dash of a curve, in widths of a line of 1. */
const DASH: Readonly<Record<Dash, number>> = { solid: 0, dashed: 10, dotted: 3 };
const CURVE_WIDTH = 2.6;
const SHADE = 0.18;
const POINT_COLOUR = '#1d2b27';
/** Places across at which a curve is looked at: each unit of the page. */
const LEAST_STEPS = 200;
const MOST_STEPS = 2000;
/** No farther from a curve than this, page units, as much as nobody sees. */
const TOLERANCE = 0.08;
const MARKED_LETTERS = 0.85;

/** Draws plots; labels are remembered from one to the next. */
export class PlotPen {
  private readonly labels: Labels;

  constructor(fonts: FormulaFonts) {
    this.labels = new Labels(fonts);
  }

  /**
   * A plot in a box of a size in page units. Throws a `FormulaError`, an `ExpressionError`, a `NoGraphError` or a `ValueError` of
   * the first curve that cannot be drawn.
   */
  async draw(recipe: PlotRecipe, width: number, height: number): Promise<Drawing> {
    const curves = recipe.curves.map((look) => read(look, recipe));
    const frame = new Frame(recipe.window, width, height);
    const ticks = ticksIn(frame, recipe);
    const places = markedPlaces(curves, recipe, stepsIn(frame));
    const legend = recipe.shown.includes('legend') ? recipe.curves : [];
    await this.labels.prepare(labelsOf(ticks, places, legend));
    const parts = [
      ...curves.flatMap((curve) => shade(curve, frame, recipe)),
      ...axes(frame, ticks),
      ...curves.flatMap((curve) => lines(curve, frame, recipe)),
      ...tablePoints(recipe, frame),
      ...axisLabels(frame, ticks, this.labels),
      ...marked(places, frame, this.labels),
      ...legendOf(legend, frame, this.labels),
    ];
    return { width, height, parts };
  }
}

function read(look: PlottedCurve, { letters }: PlotRecipe): Read {
  const statement = statementOf(look.tex);
  const f = statement.is === 'height' ? heightsOf(statement.of, letters) : undefined;
  return { look, statement, f };
}

const stepsIn = ({ width }: Frame) => Math.round(Math.min(MOST_STEPS, Math.max(LEAST_STEPS, width)));

function labelsOf(ticks: Ticks, places: readonly MarkedPlace[], legend: readonly PlottedCurve[]): string[] {
  const numbers = [...ticks.x, ...ticks.y].map(({ label }) => label);
  return [
    ...AXIS_NAMES,
    '0',
    ...numbers,
    ...places.map(({ label }) => label),
    ...legend.map(({ tex }) => tex),
  ];
}

const isStrict = ({ relation }: Statement) => relation === '<' || relation === '>';

function lines({ look, statement, f }: Read, frame: Frame, { letters }: PlotRecipe): DrawingPart[] {
  const dash: Dash = isStrict(statement) ? 'dashed' : look.dash;
  const drawn = (line: number[]): DrawingPart => ({
    line,
    colour: look.colour,
    width: rounded(CURVE_WIDTH * frame.pen),
    dash: rounded(DASH[dash] * frame.pen),
  });
  if (f) {
    const pieces = curveOf(f, frame.window, stepsIn(frame));
    return pieces.map((piece) => drawn(thinned(placed(piece, frame), TOLERANCE)));
  }
  const x = placeOf(statement, letters);
  if (!(x >= frame.window.x.from && x <= frame.window.x.to)) return [];
  return [drawn([frame.across(x), 0, frame.across(x), frame.height])];
}

function placed(piece: readonly number[], frame: Frame): number[] {
  return piece.map((value, i) => (i % 2 ? frame.down(value) : frame.across(value)));
}

function placeOf(statement: Statement, letters: PlotRecipe['letters']): number {
  if (statement.is !== 'place') return NaN;
  const value = functionOf(statement.of, 'x', letters)(0);
  if (!Number.isFinite(value)) throw new ValueError('notReal');
  return value;
}

/** What an inequality takes in of the window. */
function shade({ look, statement, f }: Read, frame: Frame, { letters }: PlotRecipe): DrawingPart[] {
  const { relation } = statement;
  if (relation === '=') return [];
  const isMore = relation === '>' || relation === 'geq';
  const { width, height } = frame;
  const filled = (corners: [number, number][]): DrawingPart => ({
    rings: [straightRing(corners).map(rounded)],
    colour: look.colour,
    opacity: SHADE,
  });
  if (!f) {
    const x = Math.min(width, Math.max(0, frame.across(placeOf(statement, letters))));
    const [from, to] = isMore ? [x, width] : [0, x];
    return to > from ? [filled([[from, 0], [to, 0], [to, height], [from, height]])] : []; // prettier-ignore
  }
  const edge = isMore ? 0 : height;
  return runsOf(f, frame)
    .filter((run) => run.length > 1)
    .map((run) => filled([[run[0]![0], edge], ...thinCorners(run), [run.at(-1)![0], edge]]));
}

/** Where a function has values, as stretches of corners within the window. */
function runsOf(f: RealFunction, frame: Frame): [number, number][][] {
  const { window, height } = frame;
  const steps = stepsIn(frame);
  const runs: [number, number][][] = [[]];
  for (let i = 0; i <= steps; i++) {
    const x = window.x.from + ((window.x.to - window.x.from) * i) / steps;
    const y = f(x);
    if (Number.isNaN(y)) runs.push([]);
    else runs.at(-1)!.push([frame.across(x), Math.min(height, Math.max(0, frame.down(y)))]);
  }
  return runs;
}

function thinCorners(run: readonly [number, number][]): [number, number][] {
  const flat = thinned(run.flat(), TOLERANCE);
  return Array.from({ length: flat.length / 2 }, (_, i) => [flat[2 * i]!, flat[2 * i + 1]!]);
}

function tablePoints({ points }: PlotRecipe, frame: Frame): DrawingPart[] {
  const { x, y } = frame.window;
  const parts: DrawingPart[] = [];
  for (let i = 0; i < points.length; i += 2) {
    const [px, py] = [points[i]!, points[i + 1]!];
    if (px >= x.from && px <= x.to && py >= y.from && py <= y.to)
      parts.push(dot(frame.across(px), frame.down(py), 4.5 * frame.pen, POINT_COLOUR));
  }
  return parts;
}

/** A round dot: eight quadratic curves are within 0.03 % of a circle. */
function dot(x: number, y: number, radius: number, colour: string): DrawingPart {
  const outer = radius / Math.cos(Math.PI / 8);
  const at = (k: number, r: number) => [
    rounded(x + r * Math.cos((k * Math.PI) / 8)),
    rounded(y + r * Math.sin((k * Math.PI) / 8)),
  ];
  const ring = [...at(0, radius)];
  for (let k = 1; k < 16; k += 2) ring.push(...at(k, outer), ...at(k + 1, radius));
  return { rings: [ring], colour, opacity: 1 };
}

/** Places with their numbers beside them, where they do not cover each other as far as there is room. */
function marked(places: readonly MarkedPlace[], frame: Frame, labels: Labels): DrawingPart[] {
  const taken: Rect[] = [];
  const dots = places.map(({ x, y, colour }) => dot(frame.across(x), frame.down(y), 4.5 * frame.pen, colour));
  const numbers = places.flatMap(({ x, y, label, colour }) => {
    const size = frame.letters * MARKED_LETTERS;
    const box = labels.box(label, size);
    const room = roomFor(box, frame.across(x), frame.down(y), frame, taken);
    taken.push(room);
    return [
      ground(room, 2 * frame.pen),
      ...labels.drawn(label, size, room.x - box.x, room.y - box.y, colour),
    ];
  });
  return [...dots, ...numbers];
}

/** A box beside a place: over or under it, right or left of it, the first that is free and lies in the frame. */
function roomFor(
  { width, height }: Rect,
  px: number,
  py: number,
  frame: Frame,
  taken: readonly Rect[],
): Rect {
  const gap = 6 * frame.pen;
  const sides = [px + gap, px - gap - width].flatMap((x) =>
    [py - gap - height, py + gap].map((y) => ({ x, y, width, height })),
  );
  const isIn = ({ x, y }: Rect) => x >= 0 && y >= 0 && x + width <= frame.width && y + height <= frame.height;
  const inside = sides.filter(isIn);
  return inside.find((box) => !taken.some((other) => rectsTouch(box, other))) ?? inside[0] ?? sides[0]!;
}

/** What each curve is, in the upper right corner. */
function legendOf(curves: readonly PlottedCurve[], frame: Frame, labels: Labels): DrawingPart[] {
  const { letters, width, pen } = frame;
  const [sample, gap] = [2.2 * letters, 0.5 * letters];
  const widest = Math.max(0, ...curves.map(({ tex }) => labels.box(tex, letters).width));
  const left = width - widest - sample - 3 * gap;
  let top = 1.2 * letters;
  return curves.flatMap(({ tex, colour, dash }) => {
    const box = labels.box(tex, letters);
    const [y, height] = [top, Math.max(box.height, 0.8 * letters)];
    top += height + gap;
    return [
      ground({ x: left, y, width: width - left - gap, height }, gap / 2),
      { line: [left, y + height / 2, left + sample, y + height / 2].map(rounded), colour, width: rounded(CURVE_WIDTH * pen), dash: rounded(DASH[dash] * pen) }, // prettier-ignore
      ...labels.drawn(
        tex,
        letters,
        left + sample + gap - box.x,
        y + (height - box.height) / 2 - box.y,
        colour,
      ),
    ];
  });
}
