import type { Frame } from './frame.js';

/** A direction in which content is scrolled. */
export type Axis = 'x' | 'y';

/** A table of numbers, row by row along an axis. */
export interface Table {
  rows: number;
  columns: number;
  values: Float64Array;
}

/** Length of the cells in which a frame is looked at along an axis, and how broad they are, pixels. */
export const CELL_LENGTH = 4;
const CELL_BREADTH = 16;
/** Strips of cells that are enough to tell how far something has moved, and how far apart they are at least, pixels. */
const MOST_STRIPS = 12;
const LEAST_APART = 32;
/** Every so many pixels of a strip's row are looked at, and of a frame where edges are. */
const STEP = 2;

/** Distance from strip to strip, pixels, of a frame that is so broad. */
export const strideOf = (breadth: number) => Math.max(LEAST_APART, Math.ceil(breadth / MOST_STRIPS));

interface Profiles {
  means?: Table;
  edges?: Table;
}
/** A frame is compared twice, with the one before and the one after it. */
const known: Record<Axis, WeakMap<Frame, Profiles>> = { x: new WeakMap(), y: new WeakMap() };

function kept<K extends keyof Profiles>(frame: Frame, axis: Axis, what: K, make: () => Table): Table {
  let profiles = known[axis].get(frame);
  if (!profiles) known[axis].set(frame, (profiles = {}));
  return (profiles[what] ??= make());
}

/** Sums of luma in the cells of strips that lie along the axis: a row for each four pixels, a column for each strip. */
export function meansOf(frame: Frame, axis: Axis): Table {
  return kept(frame, axis, 'means', () => cellsOf(frame, axis));
}

/** How strongly luma changes along an axis at each four pixels of it, over the whole breadth; a single column. */
export function edgesOf(frame: Frame, axis: Axis): Table {
  return kept(frame, axis, 'edges', () => edges(frame, axis));
}

/**
 * As `meansOf` of a frame that is scaled first, of strips that lie so many scaled pixels beside theirs; what would lie
 * outside is all 0.
 */
export function cellsOf({ width, height, grey }: Frame, axis: Axis, scale = 1, beside = 0): Table {
  const [length, breadth, along, across] =
    axis === 'y' ? [height, width, width, 1] : [width, height, 1, width];
  const stride = strideOf(breadth);
  const columns = Math.floor((breadth - CELL_BREADTH) / stride) + 1;
  const rows = Math.floor((length * scale) / CELL_LENGTH);
  const values = new Float64Array(rows * columns);
  for (let column = 0; column < columns; column++) {
    const start = (column * stride + beside) / scale;
    if (start < 0 || start + CELL_BREADTH / scale > breadth) continue;
    const places = Array.from(
      { length: CELL_BREADTH / STEP },
      (_, j) => Math.floor(start + (j * STEP) / scale) * across,
    );
    for (let i = 0; i < rows * CELL_LENGTH; i++) {
      const at = Math.floor(i / scale) * along;
      let sum = 0;
      for (const place of places) sum += grey[at + place]!;
      values[((i / CELL_LENGTH) | 0) * columns + column]! += sum;
    }
  }
  return { rows, columns, values };
}

function edges({ width, height, grey }: Frame, axis: Axis): Table {
  const [length, breadth, along, across] =
    axis === 'y' ? [height, width, width, 1] : [width, height, 1, width];
  const rows = Math.floor(length / CELL_LENGTH);
  const values = new Float64Array(rows);
  for (let j = 0; j < breadth; j += STEP) {
    for (let i = 1; i < rows * CELL_LENGTH; i++) {
      const at = j * across + i * along;
      values[(i / CELL_LENGTH) | 0]! += Math.abs(grey[at]! - grey[at - along]!);
    }
  }
  return { rows, columns: 1, values };
}
