import { boundsOfFlat } from '../geometry/path.js';
import type { Rect } from '../geometry/rect.js';
import { boundsOfPoints, boxCorners } from '../geometry/turnedBox.js';
import { markBounds, markBox } from '../marks/bounds.js';
import type { Mark } from '../marks/mark.js';
import { hasBox } from '../marks/mark.js';
import type { Page, Ruling } from '../pages/page.js';
import { UNITS_PER_MM } from '../pages/page.js';

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

/** A ruling whose lines things are drawn to: the distance of its lines, and where one of them lies; undefined where it has none. */
export interface Grid {
  readonly step: number;
  readonly x: number | undefined;
  readonly y: number | undefined;
}

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
  const x = fitAlong('x', spanX(moved), others.map(spanX), reach, grid?.step, grid?.x);
  const y = fitAlong(
    'y',
    spanY({ ...moved, x: moved.x + x.by }),
    others.map(spanY),
    reach,
    grid?.step,
    grid?.y,
  );
  return { dx: dx + x.by, dy: dy + y.by, guides: [...x.guides, ...y.guides] };
}

const spanX = ({ x, y, width, height }: Rect): Span => ({ low: x, high: x + width, from: y, to: y + height });
const spanY = ({ x, y, width, height }: Rect): Span => ({ low: y, high: y + height, from: x, to: x + width });
const middle = ({ low, high }: Span) => (low + high) / 2;

function fitAlong(
  axis: Guide['axis'],
  moved: Span,
  others: readonly Span[],
  reach: number,
  step: number | undefined,
  at: number | undefined,
): Fit {
  const fits = [
    ...others.flatMap((other) => alignments(axis, moved, other)),
    ...equalGaps(axis, moved, others),
  ];
  const best = fits
    .filter(({ by }) => Math.abs(by) <= reach)
    .sort((a, b) => Math.abs(a.by) - Math.abs(b.by))[0];
  return best ?? onGrid(moved, reach, step, at) ?? { by: 0, guides: [] };
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

function onGrid(
  { low, high }: Span,
  reach: number,
  step: number | undefined,
  at: number | undefined,
): Fit | undefined {
  if (step === undefined || at === undefined) return undefined;
  const off = (place: number) => Math.round((place - at) / step) * step + at - place;
  const [first, second] = [off(low), off(high)];
  const by = Math.abs(first) <= Math.abs(second) ? first : second;
  return Math.abs(by) <= reach ? { by, guides: [] } : undefined;
}

/** Where a mark lies, without the width of its lines. */
export function placeOf(mark: Mark): Rect {
  if (mark.kind === 'path') return boundsOfFlat(mark.points, 2);
  return hasBox(mark) ? boundsOfPoints(boxCorners(markBox(mark))) : markBounds(mark);
}

/** Rulings whose lines things are drawn to, by whether they have upright ones too. */
const GRIDS: Partial<Record<Ruling, boolean>> = { squared: true, dotted: true, axes: true, lined: false };

/** The lines of a page's ruling that things are drawn to; undefined where it has none. */
export function gridOf({
  surface,
  width,
  height,
}: Pick<Page, 'surface' | 'width' | 'height'>): Grid | undefined {
  const isUpright = surface.kind === 'blank' ? GRIDS[surface.ruling] : undefined;
  if (surface.kind !== 'blank' || isUpright === undefined) return undefined;
  return { step: surface.spacing * UNITS_PER_MM, x: isUpright ? width / 2 : undefined, y: height / 2 };
}
