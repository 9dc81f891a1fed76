import type { Point } from '../neaten/trace.js';
import { pointsOfStroke } from '../neaten/trace.js';
import { pointsOf } from '../geometry/path.js';
import type { Matrix } from '../geometry/matrix.js';
import { compose, inverse } from '../geometry/matrix.js';
import type { Sample } from './form.js';
import { Form } from './form.js';
import type { DrawnLine, LineDrawing } from './lineDrawing.js';

/** A drawing that rough ink may be meant for. */
export interface DrawingMatch {
  readonly id: string;
  /** How far the two are apart, in sizes of the drawing; 0 where they are the same. */
  readonly off: number;
}

/** So many of the likeliest are compared both ways, and so many of those are laid on the ink more closely. */
const BOTH_WAYS = 100;
const LAID_CLOSELY = 28;

/** Finds the clean drawings that rough ink is likest to, by its form alone. */
export class DrawingMatcher {
  private readonly forms: readonly { id: string; form: Form }[];

  constructor(drawings: readonly LineDrawing[]) {
    this.forms = drawings.flatMap(({ id, lines }) => {
      const form = Form.of(lines.map(placesOf));
      return form ? [{ id, form }] : [];
    });
  }

  /** The drawings that strokes are likest to, at most `most`, the best first; none where they have no length. */
  best(strokes: readonly (readonly number[])[], most: number): DrawingMatch[] {
    const drawn = Form.of(strokes.map(pointsOfStroke));
    if (!drawn) return [];
    const near = leastOff(this.forms, BOTH_WAYS, ({ form }) => distance(form.samples, drawn, STRAIGHT));
    const nearer = leastOff(near, LAID_CLOSELY, ({ form }) => apart(drawn, form, STRAIGHT));
    return leastOff(nearer, most, ({ form }) => laidClosely(drawn, form)).map(({ id, off }) => ({ id, off }));
  }
}

/** Those that are least off, the best first. */
function leastOff<T extends object>(
  all: readonly T[],
  most: number,
  off: (one: T) => number,
): (T & { off: number })[] {
  return all
    .map((one) => ({ ...one, off: off(one) }))
    .sort((a, b) => a.off - b.off)
    .slice(0, most);
}

function placesOf({ points, closed }: DrawnLine): Point[] {
  const places = pointsOf(points);
  return closed ? [...places, places[0]!] : places;
}

/** A matrix and how far it turns, as a part of half a turn. */
interface Laying {
  readonly matrix: Matrix;
  readonly turn: number;
}

const STRAIGHT: Laying = { matrix: [1, 0, 0, 1, 0, 0], turn: 0 };

/** Ways in which a hand's drawing lies differently from what it means: moved, larger to a side, turned, leaning. */
const STEPS: readonly Laying[] = [-1, 1].flatMap((sign): Laying[] => [
  { matrix: [1, 0, 0, 1, 0.035 * sign, 0], turn: 0 },
  { matrix: [1, 0, 0, 1, 0, 0.035 * sign], turn: 0 },
  { matrix: [1 + 0.07 * sign, 0, 0, 1, 0, 0], turn: 0 },
  { matrix: [1, 0, 0, 1 + 0.07 * sign, 0, 0], turn: 0 },
  turned(0.1 * sign),
  { matrix: [1, 0, 0.12 * sign, 1, 0, 0], turn: 0 },
]);
/** Rounds of laying one on the other ever more closely. */
const ROUNDS = 5;

function turned(angle: number): Laying {
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  return { matrix: [cos, sin, -sin, cos, 0, 0], turn: angle / Math.PI };
}

/** How far two forms are apart where one is laid on the other as well as small steps do it. */
function laidClosely(drawn: Form, form: Form): number {
  let [laying, off] = [STRAIGHT, apart(drawn, form, STRAIGHT)];
  for (let round = 0; round < ROUNDS; round++) {
    const tried = STEPS.map(({ matrix, turn }) => {
      const next = { matrix: compose(laying.matrix, matrix), turn: laying.turn + turn };
      return { next, off: apart(drawn, form, next) };
    });
    const best = tried.reduce((a, b) => (b.off < a.off ? b : a));
    if (best.off >= off) break;
    [laying, off] = [best.next, best.off];
  }
  return off;
}

/** The mean distance of the samples of each form from the lines of the other, which the first is laid on. */
function apart(drawn: Form, form: Form, laying: Laying): number {
  const back: Laying = { matrix: inverse(laying.matrix), turn: -laying.turn };
  return (distance(drawn.samples, form, laying) + distance(form.samples, drawn, back)) / 2;
}

function distance(samples: readonly Sample[], { field }: Form, { matrix, turn }: Laying): number {
  const [a, b, c, d, e, f] = matrix;
  let sum = 0;
  for (const { x, y, direction } of samples)
    sum += field.at(a * x + c * y + e, b * x + d * y + f, direction + turn);
  return sum / samples.length;
}
