import type { Rect } from '../geometry/rect.js';
import type { MarkBody } from '../marks/markBody.js';
import type { PolygonKind } from './polygonKinds.js';

export type ShapeKind =
  PolygonKind | 'line' | 'polyline' | 'arrow' | 'arc' | 'circle' | 'ellipse' | 'brace' | 'cloud';

type Drawn<B> = B extends { style: unknown } ? Omit<B, 'style'> : never;

/** What a reading puts in the place of the ink, without its look. */
export type NeatBody = Drawn<Extract<MarkBody, { kind: 'path' | 'shape' }>>;

/** One thing that rough ink may mean. */
export interface Reading {
  readonly kind: ShapeKind;
  readonly body: NeatBody;
  /** The less, the likelier. */
  readonly cost: number;
  /** What the ink is off it, as part of its size (root of the mean square). */
  readonly off: number;
}

const WORTH_A_CORNER = 2.4;

/** What a model costs that has so many corners (or as much to say as those), by what the points are off it and their tremor. */
export function fitCost(off: number, tremor: number, corners: number): number {
  return 9 * (off / tremor) ** 2 + WORTH_A_CORNER * corners;
}

export const round = (value: number) => Math.round(value * 100) / 100;

/** A path through corners. */
export function throughCorners(
  corners: readonly (readonly [number, number])[],
  closed: boolean,
  course: 'straight' | 'arc' = 'straight',
): Extract<NeatBody, { kind: 'path' }> {
  const points = corners.flatMap(([x, y]) => [round(x), round(y)]);
  return { kind: 'path', course, points, closed, heads: 'none', from: null, to: null };
}

/** A shape that fills a box; `turn` in degrees. */
export function inBox(
  form: 'ellipse' | 'bracket' | 'cloud',
  { x, y, width, height }: Rect,
  turn = 0,
  { sides = 4, flip = false } = {},
): Extract<NeatBody, { kind: 'shape' }> {
  const box = { x: round(x), y: round(y), width: round(width), height: round(height), rotation: round(turn) };
  return { kind: 'shape', form, sides, flip, ...box };
}
