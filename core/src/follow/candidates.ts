import type { Rect } from '../geometry/rect.js';
import { bestShifts, centred } from './correlate.js';
import type { Frame } from './frame.js';
import type { Warp } from './match.js';
import type { Axis, Table } from './profiles.js';
import { cellsOf, CELL_LENGTH, edgesOf, meansOf, strideOf } from './profiles.js';

/** Scales that are tried: from half to twice as large, so many for each doubling; then closely about the best. */
const PER_DOUBLING = 32;
const FINE_PER_DOUBLING = 256;
const FINE_STEPS = 5;
/** Shifts that are tried with each scale. */
const PEAKS = 2;

/**
 * The most likely shifts along an axis within an area, pixels, best first. Means of small cells are compared, so no
 * pixel has to be equal: scaled and compressed pictures will do.
 */
export function likelyShifts(before: Frame, now: Frame, area: Rect, axis: Axis, count: number): number[] {
  const [from, length, left, breadth, whole] =
    axis === 'y'
      ? [area.y, area.height, area.x, area.width, now.width]
      : [area.x, area.width, area.y, area.height, now.height];
  const [first, end] = [from, from + length].map((at) => Math.floor(at / CELL_LENGTH));
  const [left0, right] = [left, left + breadth].map((at) => Math.ceil(at / strideOf(whole)));
  const cut = (frame: Frame) => centred(meansOf(frame, axis), first, end, left0, right);
  return bestShifts(cut(before), cut(now), count).map(({ shift }) => CELL_LENGTH * shift);
}

/**
 * Shifts along both axes at once that are likely, pixels: those along y by what the whole breadth is like, which content
 * that moves sideways too does not leave, and for each of them those along x.
 */
export function likelySlides(before: Frame, now: Frame, count: number): Warp[] {
  return bestShifts(centred(edgesOf(before, 'y')), centred(edgesOf(now, 'y')), count).flatMap(({ shift }) =>
    withShiftsAcross(before, now, 1, CELL_LENGTH * shift),
  );
}

/** Zooms that are likely: the scales and shifts that fit best along y, and for each of them the shifts along x. */
export function likelyZooms(before: Frame, now: Frame, count: number): Warp[] {
  const [from, goal] = [edgesOf(before, 'y'), centred(edgesOf(now, 'y'))];
  const fits = (scale: number) =>
    bestShifts(centred(stretched(from, scale)), goal, PEAKS).map((peak) => ({ scale, ...peak }));
  const best = (scales: readonly number[], most: number) =>
    scales
      .flatMap(fits)
      .sort((a, b) => b.score - a.score)
      .slice(0, most);
  return best(scalesAbout(1, PER_DOUBLING, PER_DOUBLING), count).flatMap(({ scale }) =>
    best(scalesAbout(scale, FINE_PER_DOUBLING, FINE_STEPS), 1).flatMap((fit) =>
      withShiftsAcross(before, now, fit.scale, CELL_LENGTH * fit.shift),
    ),
  );
}

const scalesAbout = (scale: number, perDoubling: number, steps: number) =>
  Array.from({ length: 2 * steps + 1 }, (_, i) => scale * 2 ** ((i - steps) / perDoubling));

/** The shifts along x that go best with a scale and a shift along y. */
function withShiftsAcross(before: Frame, now: Frame, scale: number, dy: number): Warp[] {
  const cells = centred(cellsOf(before, 'x', scale, -Math.round(dy)));
  return bestShifts(cells, centred(meansOf(now, 'x')), PEAKS).map(({ shift }) => ({
    scale,
    dx: CELL_LENGTH * shift,
    dy,
  }));
}

/** A single column, so many times as long, by linear interpolation. */
function stretched({ rows, values }: Table, scale: number): Table {
  const out = new Float64Array(Math.floor(rows * scale));
  for (let i = 0; i < out.length; i++) {
    const at = Math.max(0, Math.min(rows - 1.001, (i + 0.5) / scale - 0.5));
    const left = Math.floor(at);
    out[i] = values[left]! + (values[left + 1]! - values[left]!) * (at - left);
  }
  return { rows: out.length, columns: 1, values: out };
}
