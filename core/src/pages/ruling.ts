import { luminance } from '../colour/contrast.js';
import type { PaintItem } from '../paint/paint.js';
import type { Path, PathStep } from '../paint/path.js';
import { polylinePath } from '../paint/path.js';
import { textWidth } from '../text/layout.js';
import type { Page, Surface } from './page.js';
import { UNITS_PER_MM } from './page.js';

type Blank = Extract<Surface, { kind: 'blank' }>;

/** Space left free at each edge by rulings that are made of rows, in millimetres. */
const MARGIN_MM = 12;
const FAINT_ON_LIGHT = '#9db2c4';
const FAINT_ON_DARK = '#5f7f71';
const BASE_ON_LIGHT = '#5c7894';

interface Plane {
  width: number;
  height: number;
  /** Distance of lines, page units. */
  step: number;
  faint: string;
  firm: string;
}

/** The ruling of a blank page, drawn over its colour. */
export function paintRuling(page: Pick<Page, 'width' | 'height'>, surface: Blank): PaintItem[] {
  const light = luminance(surface.colour) > 0.3;
  const plane: Plane = {
    width: page.width,
    height: page.height,
    step: surface.spacing * UNITS_PER_MM,
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

function line(path: Path, colour: string, width = 1, dash: readonly number[] = []): PaintItem {
  return { kind: 'line', path, colour, width, dash, opacity: 1 };
}

function segment(x0: number, y0: number, x1: number, y1: number): PathStep[] {
  return [
    ['M', x0, y0],
    ['L', x1, y1],
  ];
}

/** Positions a step apart, the middle of the length among them. */
function steps(length: number, step: number): number[] {
  const positions: number[] = [];
  for (let at = (length / 2) % step; at <= length; at += step) positions.push(at);
  return positions;
}

const across = ({ width, height, step }: Plane) =>
  steps(height, step).flatMap((y) => segment(0, y, width, y));
const down = ({ width, height, step }: Plane) => steps(width, step).flatMap((x) => segment(x, 0, x, height));

function dots({ width, height, step, faint }: Plane): PaintItem {
  const radius = 1.4;
  const path = steps(height, step).flatMap((y) =>
    steps(width, step).flatMap((x) =>
      polylinePath([x - radius, y, x, y - radius, x + radius, y, x, y + radius], true),
    ),
  );
  return { kind: 'fill', path, colour: faint, opacity: 1, blend: 'normal', rule: 'nonzero' };
}

/** Rows of lines, the first of each row at the returned heights. */
function rows({ height }: Plane, rowHeight: number, gap: number): number[] {
  const margin = MARGIN_MM * UNITS_PER_MM;
  const tops: number[] = [];
  for (let y = margin; y + rowHeight <= height - margin; y += rowHeight + gap) tops.push(y);
  return tops;
}

/** Four lines to a row: ascender, x-height, base and descender (common practice, no source). */
function handwriting(plane: Plane): PaintItem[] {
  const { width, step, faint, firm } = plane;
  const margin = MARGIN_MM * UNITS_PER_MM;
  const at = (k: number) =>
    rows(plane, 3 * step, step).flatMap((y) => segment(margin, y + k * step, width - margin, y + k * step));
  return [line([...at(0), ...at(3)], faint), line(at(1), faint, 1, [6, 5]), line(at(2), firm, 1.4)];
}

/** Five lines to a staff (common practice, no source). */
function music(plane: Plane): PaintItem[] {
  const { width, step, firm } = plane;
  const margin = MARGIN_MM * UNITS_PER_MM;
  const lines = rows(plane, 4 * step, 6 * step).flatMap((y) =>
    [0, 1, 2, 3, 4].flatMap((k) => segment(margin, y + k * step, width - margin, y + k * step)),
  );
  return [line(lines, firm)];
}

/** Lines at 30°, 90° and 150°, whose crossings are equally far apart. */
function isometric({ width, height, step }: Plane): PathStep[] {
  const path: PathStep[] = [];
  const slope = Math.tan(Math.PI / 6);
  const apart = (step * Math.sqrt(3)) / 2;
  for (let x = 0; x <= width; x += apart) path.push(...segment(x, 0, x, height));
  for (let y = -width * slope; y <= height + width * slope; y += step) {
    path.push(...segment(0, y, width, y + width * slope), ...segment(0, y, width, y - width * slope));
  }
  return path;
}

/** Squares with both axes through the middle, numbered. */
function axes(plane: Plane): PaintItem[] {
  const { width, height, step, faint, firm } = plane;
  const [cx, cy] = [width / 2, height / 2];
  const size = Math.min(13, step * 0.42);
  const items: PaintItem[] = [
    line([...across(plane), ...down(plane)], faint, 0.7),
    line([...segment(0, cy, width, cy), ...segment(cx, 0, cx, height)], firm, 2),
  ];
  const label = (text: string, x: number, y: number) => {
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
  for (let n = 1; n * step < width / 2 - size; n++) {
    label(String(n), cx + n * step, cy + size * 1.3);
    label(`−${n}`, cx - n * step, cy + size * 1.3);
  }
  for (let n = 1; n * step < height / 2 - size; n++) {
    label(String(n), cx - size, cy - n * step + size * 0.4);
    label(`−${n}`, cx - size, cy + n * step + size * 0.4);
  }
  return items;
}
