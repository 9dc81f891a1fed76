import { luminance } from '../colour/contrast.js';
import type { Rect } from '../geometry/rect.js';
import type { PaintItem } from '../paint/items.js';
import type { Path, PathStep } from '../geometry/path.js';
import { polylinePath } from '../geometry/path.js';
import type { Ruling, Surface } from './page.js';
import { UNITS_PER_MM } from './page.js';

export type Blank = Extract<Surface, { kind: 'blank' }>;

/** Space left free at each edge by rulings that are made of rows, in millimetres. */
export const MARGIN_MM = 12;
/** Most crossings of a ruling that are drawn. */
const MAX_CROSSINGS = 30_000;
const FAINT_ON_LIGHT = '#9db2c4';
const FAINT_ON_DARK = '#5f7f71';
const BASE_ON_LIGHT = '#5c7894';

export interface Plane {
  /** What is ruled, page units. */
  left: number;
  top: number;
  right: number;
  bottom: number;
  /** The page itself: rulings are centred on it, also where they go beyond it. */
  page: { width: number; height: number };
  /** Space left free at each edge by rulings that are made of rows. */
  margin: number;
  /** Distance of lines, page units. */
  step: number;
  /** Steps of the ruling from one drawn line to the next. */
  every: number;
  faint: string;
  firm: string;
}

/**
 * The ruling of a blank page, drawn over its colour. A boundless page is ruled in `area`; a
 * ruling that would be too fine there has every fifth line only.
 */
export function paintRuling(
  page: { width: number; height: number },
  surface: Blank,
  area: Rect = { x: 0, y: 0, ...page },
): PaintItem[] {
  const light = luminance(surface.colour) > 0.3;
  const { x, y, width, height } = surface.boundless ? area : { x: 0, y: 0, ...page };
  const spacing = surface.spacing * UNITS_PER_MM;
  const every = drawnEvery(spacing, width, height);
  const plane: Plane = {
    left: x,
    top: y,
    right: x + width,
    bottom: y + height,
    page,
    margin: surface.boundless ? 0 : MARGIN_MM * UNITS_PER_MM,
    step: spacing * every,
    every,
    faint: light ? FAINT_ON_LIGHT : FAINT_ON_DARK,
    firm: light ? BASE_ON_LIGHT : '#c9d8d0',
  };
  return PAINTERS.get(surface.ruling)?.(plane, surface) ?? [];
}

/** How a ruling is painted on a plane. */
export type RulingPainter = (plane: Plane, surface: Blank) => PaintItem[];

/** Those that most pages have; `core/rulings` adds the others when first one is wanted. */
const PAINTERS = new Map<Ruling, RulingPainter>([
  ['plain', () => []],
  ['squared', (plane) => [line([...across(plane), ...down(plane)], plane.faint)]],
  ['dotted', (plane) => [dots(plane)]],
  ['lined', (plane) => [line(across(plane), plane.faint)]],
]);

/** Says how rulings are painted. */
export function registerRulings(painters: readonly (readonly [Ruling, RulingPainter])[]): void {
  for (const [ruling, painter] of painters) PAINTERS.set(ruling, painter);
}

/** Whether it is known how the ruling of a page is painted. */
export function isRulingKnown(surface: Surface): boolean {
  return surface.kind !== 'blank' || PAINTERS.has(surface.ruling);
}

/** How many steps apart lines are drawn, so that an area has no more crossings than can be drawn quickly. */
function drawnEvery(step: number, width: number, height: number): number {
  let every = 1;
  while ((width / (step * every)) * (height / (step * every)) > MAX_CROSSINGS) every *= 5;
  return every;
}

export function line(path: Path, colour: string, width = 1, dash: readonly number[] = []): PaintItem {
  return { kind: 'line', path, colour, width, dash, opacity: 1 };
}

export function segment(x0: number, y0: number, x1: number, y1: number): PathStep[] {
  return [
    ['M', x0, y0],
    ['L', x1, y1],
  ];
}

/** Positions from `from` to `to` that are whole steps away from `origin`. */
export function steps(from: number, to: number, origin: number, step: number): number[] {
  const positions: number[] = [];
  for (let n = Math.ceil((from - origin) / step); origin + n * step <= to; n++)
    positions.push(origin + n * step);
  return positions;
}

export const heights = ({ top, bottom, page, step }: Plane) => steps(top, bottom, page.height / 2, step);
export const sides = ({ left, right, page, step }: Plane) => steps(left, right, page.width / 2, step);
export const across = (plane: Plane) => heights(plane).flatMap((y) => segment(plane.left, y, plane.right, y));
export const down = (plane: Plane) => sides(plane).flatMap((x) => segment(x, plane.top, x, plane.bottom));

function dots(plane: Plane): PaintItem {
  const radius = 1.4;
  const path = heights(plane).flatMap((y) =>
    sides(plane).flatMap((x) =>
      polylinePath([x - radius, y, x, y - radius, x + radius, y, x, y + radius], true),
    ),
  );
  return { kind: 'fill', path, colour: plane.faint, opacity: 1, blend: 'normal', rule: 'nonzero' };
}
