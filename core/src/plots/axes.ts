import type { Drawing, DrawingPart } from '../marks/plot/plotMark.js';
import { straightRing } from '../formulas/curves.js';
import type { Rect } from '../geometry/rect.js';
import { growRect } from '../geometry/rect.js';
import type { Window } from './curve.js';
import type { Labels } from './labels.js';
import { rounded } from './labels.js';
import type { PlotRecipe } from './recipe.js';
import type { Tick } from './ticks.js';
import { ticksOf } from './ticks.js';

/** Where numbers lie in a drawing, and how large what is drawn there is. */
export class Frame {
  /** Height of letters. */
  readonly letters: number;
  /** How broad lines are beside those of letters of 16. */
  readonly pen: number;

  constructor(
    readonly window: Window,
    readonly width: number,
    readonly height: number,
  ) {
    this.letters = Math.min(24, Math.max(8, Math.min(width, height) / 20));
    this.pen = this.letters / 16;
  }

  across = (x: number): number => rounded(((x - this.window.x.from) / span(this.window.x)) * this.width);
  down = (y: number): number => rounded(((this.window.y.to - y) / span(this.window.y)) * this.height);
}

const span = ({ from, to }: Window['x']) => to - from;

const GRID = '#cfd6d4';
const AXIS = '#33413d';
/** Between two ticks of the x and of the y axis, in heights of letters. */
const ROOM = { x: 3.4, y: 2.6 };
const GAP = 0.35;

export interface Ticks {
  x: readonly Tick[];
  y: readonly Tick[];
}

export function ticksIn(frame: Frame, { inPi, comma }: Pick<PlotRecipe, 'inPi' | 'comma'>): Ticks {
  const most = (length: number, room: number) => Math.max(2, Math.floor(length / (room * frame.letters)));
  return {
    x: ticksOf(frame.window.x, most(frame.width, ROOM.x), { inPi, comma }),
    y: ticksOf(frame.window.y, most(frame.height, ROOM.y), { comma }),
  };
}

/** Whether the axes lie in the window. */
const hasX = ({ window: { y } }: Frame) => y.from <= 0 && y.to >= 0;
const hasY = ({ window: { x } }: Frame) => x.from <= 0 && x.to >= 0;

/** A grid with an axis where x or y is 0. */
export function axes(frame: Frame, ticks: Ticks): Drawing['parts'] {
  const { width, height } = frame;
  const line = (colour: string, thick: number, ...points: number[]): DrawingPart => ({
    line: points,
    colour,
    width: rounded(thick * frame.pen),
    dash: 0,
  });
  const upright = (x: number) => [x, 0, x, height];
  const level = (y: number) => [0, y, width, y];
  const grid = [
    ...ticks.x.map(({ at }) => line(GRID, 0.9, ...upright(frame.across(at)))),
    ...ticks.y.map(({ at }) => line(GRID, 0.9, ...level(frame.down(at)))),
  ];
  const [zeroX, zeroY] = [frame.across(0), frame.down(0)];
  return [
    ...grid,
    ...(hasX(frame) ? [line(AXIS, 1.6, ...level(zeroY)), arrow(frame, width, zeroY, 1, 0)] : []),
    ...(hasY(frame) ? [line(AXIS, 1.6, ...upright(zeroX)), arrow(frame, zeroX, 0, 0, -1)] : []),
  ];
}

/** The numbers and names of the axes; where an axis lies outside, its numbers stand at the edge. */
export function axisLabels(frame: Frame, ticks: Ticks, labels: Labels): Drawing['parts'] {
  const xAxis = hasX(frame) ? frame.down(0) : undefined;
  const yAxis = hasY(frame) ? frame.across(0) : undefined;
  const cross = xAxis !== undefined && yAxis !== undefined;
  return [
    ...numbersBelow(frame, ticks.x, xAxis ?? frame.height, cross, labels),
    ...numbersBeside(frame, ticks.y, yAxis ?? 0, cross, labels),
    ...names(frame, xAxis, yAxis, labels),
  ];
}

export const AXIS_NAMES = ['x', 'y'] as const;

function names(frame: Frame, xAxis: number | undefined, yAxis: number | undefined, labels: Labels) {
  const { letters, width } = frame;
  const gap = GAP * letters;
  const x = labels.box('x', letters);
  return [
    ...(xAxis === undefined
      ? []
      : labels.drawn('x', letters, width - x.width - gap, Math.max(letters, xAxis - gap * 1.6), AXIS)),
    ...(yAxis === undefined
      ? []
      : labels.drawn('y', letters, Math.min(width - letters, yAxis + gap * 1.8), letters * 0.8, AXIS)),
  ];
}

/** The head of an arrow whose tip is at x, y. */
function arrow({ pen }: Frame, x: number, y: number, dx: number, dy: number): DrawingPart {
  const [long, half] = [9 * pen, 4 * pen];
  const corners: [number, number][] = [
    [x, y],
    [x - dx * long + dy * half, y - dy * long + dx * half],
    [x - dx * long - dy * half, y - dy * long - dx * half],
  ];
  return { rings: [straightRing(corners).map(rounded)], colour: AXIS, opacity: 1 };
}

/** A pale ground on which letters are read over a grid and curves. */
export function ground(box: Rect, by: number): DrawingPart {
  const { x, y, width, height } = growRect(box, by);
  const corners = [[x, y], [x + width, y], [x + width, y + height], [x, y + height]] as const; // prettier-ignore
  return { rings: [straightRing(corners).map(rounded)], colour: '#ffffff', opacity: 0.8 };
}

/** A label whose box has its upper left corner at x, y, on a pale ground. */
function numberAt(frame: Frame, label: string, x: number, y: number, labels: Labels): DrawingPart[] {
  const box = labels.box(label, frame.letters);
  return [
    ground({ ...box, x, y }, frame.pen),
    ...labels.drawn(label, frame.letters, x - box.x, y - box.y, AXIS),
  ];
}

/** Numbers under the x axis, or over it where there is no room; 0 is said once where the axes cross. */
function numbersBelow(frame: Frame, ticks: readonly Tick[], axis: number, cross: boolean, labels: Labels) {
  const { letters, width, height } = frame;
  const gap = GAP * letters;
  const boxes = ticks.map(({ label }) => labels.box(label, letters));
  const tallest = Math.max(0, ...boxes.map((box) => box.height));
  const isOver = axis + gap + tallest > height;
  // The end belongs to the arrow and its name.
  const end = width - 2 * letters;
  return ticks.flatMap(({ at, label }, i) => {
    const box = boxes[i]!;
    const top = isOver ? axis - gap - tallest : axis + gap;
    if (cross && at === 0) return numberAt(frame, label, frame.across(0) - box.width - gap, top, labels);
    const left = frame.across(at) - box.width / 2;
    return left < 0 || left + box.width > end ? [] : numberAt(frame, label, left, top, labels);
  });
}

/** Numbers left of the y axis, or right of it where there is no room. */
function numbersBeside(frame: Frame, ticks: readonly Tick[], axis: number, cross: boolean, labels: Labels) {
  const { letters, height } = frame;
  const gap = GAP * letters;
  const boxes = ticks.map(({ label }) => labels.box(label, letters));
  const isRight = axis - gap - Math.max(0, ...boxes.map((box) => box.width)) < 0;
  return ticks.flatMap(({ at, label }, i) => {
    const box = boxes[i]!;
    const top = frame.down(at) - box.height / 2;
    if ((cross && at === 0) || top < 1.6 * letters || top + box.height > height) return [];
    return numberAt(frame, label, isRight ? axis + gap : axis - gap - box.width, top, labels);
  });
}
