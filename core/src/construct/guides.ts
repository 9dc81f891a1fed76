import { boundsOfFlat } from '../geometry/path.js';
import type { Rect } from '../geometry/rect.js';
import { boundsOfPoints, boxCorners } from '../geometry/turnedBox.js';
import { markBounds, markBox } from '../marks/bounds.js';
import type { Mark } from '../marks/mark.js';
import { hasBox } from '../marks/mark.js';
import type { Transform } from '../marks/transform.js';
import type { Page, Ruling } from '../pages/page.js';
import { UNITS_PER_MM } from '../pages/page.js';
import type { Blank } from '../pages/ruling.js';
import { MARGIN_MM } from '../pages/ruling.js';
import { lineDistance, numbersAcross } from '../rulings/numberLine.js';

/** A line that shows by what something is aligned while it is moved; along the other axis from one place to another. */
export interface Guide {
  readonly axis: 'x' | 'y';
  readonly at: number;
  readonly from: number;
  readonly to: number;
}

/** Where something is moved to, and what shows why. */
export interface GuidedMove {
  readonly dx: number;
  readonly dy: number;
  readonly guides: readonly Guide[];
}

/** Parallel lines of a ruling: one of them, and how far it is to the next; or some lines that come again after that. */
interface Lines {
  readonly at: number;
  readonly every: number;
  /** Of each group of lines the distances from its first; one line where they are not given. */
  readonly offsets?: readonly number[];
}

/** The lines of a ruling that things are drawn to: upright ones by their x, level ones by their y. */
export interface Grid {
  readonly x?: Lines;
  readonly y?: Lines;
}

/** A stretch away from a place that stays, and what shows why it is as large as that. */
export interface GuidedResize {
  readonly resize: Stretch;
  readonly guides: readonly Guide[];
}

/** How far something is stretched each way away from a place that stays. */
type Stretch = Extract<Transform, { kind: 'resize' }>;

/** A box as it lies along one axis, and across it. */
interface Span {
  readonly low: number;
  readonly high: number;
  readonly from: number;
  readonly to: number;
}

interface Fit {
  readonly by: number;
  readonly guides: readonly Guide[];
}

/**
 * A move whose box meets others' edges or middles, stands at equal gaps between or beside others, or lies on a ruling, where it
 * is off by no more than `reach` (page units). Each axis for itself; the nearest of what is there comes before the ruling.
 */
export function guidedMove(
  box: Rect,
  others: readonly Rect[],
  { dx, dy }: { dx: number; dy: number },
  reach: number,
  grid?: Grid,
): GuidedMove {
  const moved = { ...box, x: box.x + dx, y: box.y + dy };
  const along = (axis: Guide['axis'], span: Span, row: readonly Span[]) =>
    nearest(
      [...row.flatMap((other) => alignments(axis, span, other)), ...equalGaps(axis, span, row)],
      reach,
    ) ?? onGrid(span, reach, grid, axis);
  const x = along('x', spanX(moved), others.map(spanX));
  const y = along('y', spanY({ ...moved, x: moved.x + x.by }), others.map(spanY));
  return { dx: dx + x.by, dy: dy + y.by, guides: [...x.guides, ...y.guides] };
}

/**
 * A stretch of a box whose dragged edges meet others' edges or middles, or lie on a ruling, where they are off by no more than
 * `reach` (page units). What is stretched alike both ways stays so, by the edge that is nearer to what it meets, and neither side
 * is drawn farther than that.
 */
export function guidedResize(
  box: Rect,
  resize: Stretch,
  others: readonly Rect[],
  reach: number,
  grid?: Grid,
): GuidedResize {
  const x = stretchAlong('x', spanX(box), resize.x, resize.fx, others.map(spanX), reach, grid);
  const y = stretchAlong('y', spanY(box), resize.y, resize.fy, others.map(spanY), reach, grid);
  const isAlike = resize.fx === resize.fy && resize.fx !== 1;
  if (!isAlike)
    return { resize: { ...resize, fx: x.factor, fy: y.factor }, guides: [...x.guides, ...y.guides] };
  // A little of a short side would be much of a long one.
  const longest = Math.max(box.width, box.height);
  const drawn = ({ factor }: Stretched) => Math.abs(factor - resize.fx) * longest;
  const [best] = [x, y]
    .filter((met) => (met.by !== 0 || met.guides.length > 0) && drawn(met) <= reach)
    .sort((a, b) => drawn(a) - drawn(b));
  if (!best) return { resize, guides: [] };
  return { resize: { ...resize, fx: best.factor, fy: best.factor }, guides: best.guides };
}

interface Stretched extends Fit {
  readonly factor: number;
}

/** Along one axis, on which one place stays. */
function stretchAlong(
  axis: Guide['axis'],
  span: Span,
  stays: number,
  factor: number,
  others: readonly Span[],
  reach: number,
  grid: Grid | undefined,
): Stretched {
  const edge = Math.abs(span.high - stays) >= Math.abs(span.low - stays) ? span.high : span.low;
  const length = edge - stays;
  if (factor === 1 || length === 0) return { factor, by: 0, guides: [] };
  const at = stays + factor * length;
  const dragged = { ...span, low: at, high: at };
  const fit =
    nearest(
      others.flatMap((other) => alignments(axis, dragged, other)),
      reach,
    ) ?? onGrid(dragged, reach, grid, axis);
  const met = factor + fit.by / length;
  return met > 0 ? { ...fit, factor: met } : { factor, by: 0, guides: [] };
}

const spanX = ({ x, y, width, height }: Rect): Span => ({ low: x, high: x + width, from: y, to: y + height });
const spanY = ({ x, y, width, height }: Rect): Span => ({ low: y, high: y + height, from: x, to: x + width });
const middle = ({ low, high }: Span) => (low + high) / 2;

/** The fit that moves least, of those within reach. */
function nearest(fits: readonly Fit[], reach: number): Fit | undefined {
  return fits.filter(({ by }) => Math.abs(by) <= reach).sort((a, b) => Math.abs(a.by) - Math.abs(b.by))[0];
}

/** Edges to edges, the middle to the middle. */
function alignments(axis: Guide['axis'], moved: Span, other: Span): Fit[] {
  const [from, to] = [Math.min(moved.from, other.from), Math.max(moved.to, other.to)];
  const fit = (own: number, there: number): Fit => ({
    by: there - own,
    guides: [{ axis, at: there, from, to }],
  });
  return [
    fit(moved.low, other.low),
    fit(moved.low, other.high),
    fit(moved.high, other.low),
    fit(moved.high, other.high),
    fit(middle(moved), middle(other)),
  ];
}

/** Between two others at equal gaps, or beside two as far as they are from each other. */
function equalGaps(axis: Guide['axis'], moved: Span, others: readonly Span[]): Fit[] {
  const row = others
    .filter(({ from, to }) => from < moved.to && to > moved.from)
    .sort((a, b) => a.low - b.low);
  const length = moved.high - moved.low;
  const across = (moved.from + moved.to) / 2;
  // A gap is shown by a line across the middle of it, from one edge to the other.
  const gap = (low: number, high: number): Guide => ({
    axis: axis === 'x' ? 'y' : 'x',
    at: across,
    from: low,
    to: high,
  });
  return row.slice(1).flatMap((b, i): Fit[] => {
    const a = row[i]!;
    const between = b.low - a.high;
    if (between <= 0) return [];
    const fits: Fit[] = [];
    const put = (low: number, guides: Guide[]) => fits.push({ by: low - moved.low, guides });
    if (between > length) {
      const low = a.high + (between - length) / 2;
      put(low, [gap(a.high, low), gap(low + length, b.low)]);
    }
    put(b.high + between, [gap(a.high, b.low), gap(b.high, b.high + between)]);
    put(a.low - between - length, [gap(a.high, b.low), gap(a.low - between, a.low)]);
    return fits;
  });
}

/** On the nearest line of the ruling, where there is one within reach; otherwise as it is. */
function onGrid({ low, high }: Span, reach: number, grid: Grid | undefined, axis: Guide['axis']): Fit {
  const lines = grid?.[axis];
  const by = lines ? leastOf([off(lines, low), off(lines, high)]) : Infinity;
  return { by: Math.abs(by) <= reach ? by : 0, guides: [] };
}

/** How far it is from a place to the nearest of some lines. */
function off({ at, every, offsets = [0] }: Lines, place: number): number {
  return leastOf(
    offsets.map((offset) => Math.round((place - at - offset) / every) * every + at + offset - place),
  );
}

/** The number that is nearest to 0. */
function leastOf(numbers: readonly number[]): number {
  return numbers.reduce((a, b) => (Math.abs(b) < Math.abs(a) ? b : a));
}

/** Where a mark lies, without the width of its lines. */
export function placeOf(mark: Mark): Rect {
  if (mark.kind === 'path') return boundsOfFlat(mark.points, 2);
  return hasBox(mark) ? boundsOfPoints(boxCorners(markBox(mark))) : markBounds(mark);
}

/** The lines of a page's ruling that things are drawn to; undefined where it has none. */
export function gridOf({
  surface,
  width,
  height,
}: Pick<Page, 'surface' | 'width' | 'height'>): Grid | undefined {
  if (surface.kind !== 'blank') return undefined;
  return GRIDS[surface.ruling]?.(surface.spacing * UNITS_PER_MM, { width, height }, surface);
}

type RulingGrid = (step: number, page: Pick<Page, 'width' | 'height'>, surface: Blank) => Grid;

const ROWS_BEGIN = MARGIN_MM * UNITS_PER_MM;
const squares: RulingGrid = (every, { width, height }) => ({
  x: { at: width / 2, every },
  y: { at: height / 2, every },
});

/** As `pages/ruling` and `rulings` draw them, by the distance of their lines. Crooked lines are met where they cross. */
const GRIDS: Partial<Record<Ruling, RulingGrid>> = {
  squared: squares,
  dotted: squares,
  axes: squares,
  lined: (every, { height }) => ({ y: { at: height / 2, every } }),
  handwriting: (step) => ({
    y: { at: ROWS_BEGIN, every: 4 * step, offsets: [0, step, 2 * step, 3 * step] },
  }),
  music: (step) => ({
    y: { at: ROWS_BEGIN, every: 10 * step, offsets: [0, step, 2 * step, 3 * step, 4 * step] },
  }),
  isometric: (step) => ({ x: { at: 0, every: (step * Math.sqrt(3)) / 2 }, y: { at: 0, every: step / 2 } }),
  polar: squares,
  numberLine: (step, page, surface) => {
    const { first, apart } = numbersAcross(page.width, surface);
    return { x: { at: first, every: apart }, y: { at: page.height / 2, every: lineDistance(step) } };
  },
};
