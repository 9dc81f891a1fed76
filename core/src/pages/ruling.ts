import { luminance } from '../colour/contrast.js';
import type { Rect } from '../geometry/rect.js';
import type { PaintItem } from '../paint/items.js';
import type { Path, PathStep } from '../geometry/path.js';
import { polylinePath } from '../geometry/path.js';
import { textWidth } from '../text/layout.js';
import type { Surface } from './page.js';
import { UNITS_PER_MM } from './page.js';

type Blank = Extract<Surface, { kind: 'blank' }>;

/** Space left free at each edge by rulings that are made of rows, in millimetres. */
const MARGIN_MM = 12;
/** Most crossings of a ruling that are drawn. */
const MAX_CROSSINGS = 30_000;
const FAINT_ON_LIGHT = '#9db2c4';
const FAINT_ON_DARK = '#5f7f71';
const BASE_ON_LIGHT = '#5c7894';

interface Plane {
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
  switch (surface.ruling) {
    case 'plain':
      return [];
    case 'squared':
      return [line([...across(plane), ...down(plane)], plane.faint)];
    case 'dotted':
      return [dots(plane)];
    case 'lined':
      return [line(across(plane), plane.faint)];
    case 'handwriting':
      return handwriting(plane);
    case 'music':
      return music(plane);
    case 'isometric':
      return [line(isometric(plane), plane.faint)];
    case 'axes':
      return axes(plane);
  }
}

/** How many steps apart lines are drawn, so that an area has no more crossings than can be drawn quickly. */
function drawnEvery(step: number, width: number, height: number): number {
  let every = 1;
  while ((width / (step * every)) * (height / (step * every)) > MAX_CROSSINGS) every *= 5;
  return every;
}

function line(path: Path, colour: string, width = 1, dash: readonly number[] = []): PaintItem {
  return { kind: 'line', path, colour, width, dash, opacity: 1 };
}

function segment(x0: number, y0: number, x1: number, y1: number): PathStep[] {
  return [
    ['M', x0, y0],
    ['L', x1, y1],
  ];
}

/** Positions from `from` to `to` that are whole steps away from `origin`. */
function steps(from: number, to: number, origin: number, step: number): number[] {
  const positions: number[] = [];
  for (let n = Math.ceil((from - origin) / step); origin + n * step <= to; n++)
    positions.push(origin + n * step);
  return positions;
}

const heights = ({ top, bottom, page, step }: Plane) => steps(top, bottom, page.height / 2, step);
const sides = ({ left, right, page, step }: Plane) => steps(left, right, page.width / 2, step);
const across = (plane: Plane) => heights(plane).flatMap((y) => segment(plane.left, y, plane.right, y));
const down = (plane: Plane) => sides(plane).flatMap((x) => segment(x, plane.top, x, plane.bottom));

function dots(plane: Plane): PaintItem {
  const radius = 1.4;
  const path = heights(plane).flatMap((y) =>
    sides(plane).flatMap((x) =>
      polylinePath([x - radius, y, x, y - radius, x + radius, y, x, y + radius], true),
    ),
  );
  return { kind: 'fill', path, colour: plane.faint, opacity: 1, blend: 'normal', rule: 'nonzero' };
}

/** Lines right across at `offsets` below the first line of each row. */
function rows(
  { left, top, right, bottom, margin }: Plane,
  rowHeight: number,
  gap: number,
  offsets: readonly number[],
) {
  const origin = MARGIN_MM * UNITS_PER_MM;
  // Rows of a page start below its upper edge; those of a boundless one go on above it.
  const first = margin > 0 ? origin : top - rowHeight;
  return steps(first, bottom - margin - (margin > 0 ? rowHeight : 0), origin, rowHeight + gap).flatMap((y) =>
    offsets.flatMap((offset) => segment(left + margin, y + offset, right - margin, y + offset)),
  );
}

/** Four lines to a row: ascender, x-height, base and descender (common practice, no source). */
function handwriting(plane: Plane): PaintItem[] {
  const { step, faint, firm } = plane;
  const at = (...lines: number[]) =>
    rows(
      plane,
      3 * step,
      step,
      lines.map((n) => n * step),
    );
  return [line(at(0, 3), faint), line(at(1), faint, 1, [6, 5]), line(at(2), firm, 1.4)];
}

/** Five lines to a staff (common practice, no source). */
function music(plane: Plane): PaintItem[] {
  const { step, firm } = plane;
  return [
    line(
      rows(
        plane,
        4 * step,
        6 * step,
        [0, 1, 2, 3, 4].map((n) => n * step),
      ),
      firm,
    ),
  ];
}

/** Lines at 30°, 90° and 150°, whose crossings are equally far apart. */
function isometric({ left, top, right, bottom, step }: Plane): PathStep[] {
  const path: PathStep[] = [];
  const slope = Math.tan(Math.PI / 6);
  const apart = (step * Math.sqrt(3)) / 2;
  for (const x of steps(left, right, 0, apart)) path.push(...segment(x, top, x, bottom));
  // Slanted lines are counted by where they meet x = 0, so that all three kinds cross in one point.
  for (const y of steps(top - right * slope, bottom - left * slope, 0, step))
    path.push(...segment(left, y + left * slope, right, y + right * slope));
  for (const y of steps(top + left * slope, bottom + right * slope, 0, step))
    path.push(...segment(left, y - left * slope, right, y - right * slope));
  return path;
}

/** Squares with both axes through the middle, numbered. */
function axes(plane: Plane): PaintItem[] {
  const { left, top, right, bottom, page, step, every, faint, firm } = plane;
  const [cx, cy] = [page.width / 2, page.height / 2];
  const size = Math.min(13, step * 0.42);
  const items: PaintItem[] = [
    line([...across(plane), ...down(plane)], faint, 0.7),
    line([...segment(left, cy, right, cy), ...segment(cx, top, cx, bottom)], firm, 2),
  ];
  const label = (n: number, x: number, y: number) => {
    const text = String(n * every).replace('-', '−');
    const wide = textWidth(text, 'andika', size);
    items.push({
      kind: 'text',
      x: x - wide / 2,
      y,
      text,
      width: wide,
      face: 'andika',
      size,
      colour: firm,
      fallback: false,
      matrix: undefined,
    });
  };
  for (const x of steps(left + size, right - size, cx, step)) {
    const n = Math.round((x - cx) / step);
    if (n !== 0) label(n, x, cy + size * 1.3);
  }
  for (const y of steps(top + size, bottom - size, cy, step)) {
    const n = Math.round((cy - y) / step);
    if (n !== 0) label(n, cx - size, y + size * 0.4);
  }
  return items;
}
