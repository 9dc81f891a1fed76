import type { Path, PathStep } from '../geometry/path.js';
import { STRIDE } from './points.js';

/** One of the thin lines that a textured stroke is made of. */
export interface TextureLine {
  path: Path;
  /** Lengths of dashes and gaps, page units. */
  dash: readonly number[];
  /** Part of the stroke's width that this line takes. */
  share: number;
}

/**
 * Pencil: a few close lines, the outer ones broken. Chalk: a band of streaks with many gaps. The
 * gaps follow from the numbers here alone, so the same stroke has the same grain everywhere.
 */
const GRAIN = {
  pencil: { offsets: [-0.28, 0, 0.28], share: 0.5, dashes: [[9, 1.5, 14, 2], [], [7, 2, 17, 1]] },
  chalk: {
    offsets: [-0.42, -0.21, 0, 0.21, 0.42],
    share: 0.24,
    dashes: [
      [5, 3, 11, 4, 3, 2],
      [13, 2, 7, 1.5],
      [17, 1.5, 9, 1],
      [8, 1.5, 15, 2.5],
      [4, 3.5, 9, 3, 6, 2],
    ],
  },
} as const;

/** The lines of a pencil or chalk stroke of a width in page units. */
export function textureLines(
  points: readonly number[],
  nature: 'pencil' | 'chalk',
  width: number,
): TextureLine[] {
  const { offsets, share, dashes } = GRAIN[nature];
  const grain = Math.max(0.5, width / 8);
  return offsets.map((offset, i) => ({
    path: offsetLine(points, offset * width),
    dash: dashes[i]!.map((length) => length * grain),
    share,
  }));
}

/** A line beside a stroke's points at a distance to their right, wider where the pen pressed. */
function offsetLine(points: readonly number[], distance: number): Path {
  const path: PathStep[] = [];
  const last = points.length - STRIDE;
  for (let i = 0; i <= last; i += STRIDE) {
    const [before, after] = [Math.max(0, i - STRIDE), Math.min(last, i + STRIDE)];
    const dx = points[after]! - points[before]!;
    const dy = points[after + 1]! - points[before + 1]!;
    const length = Math.hypot(dx, dy) || 1;
    const reach = distance * (0.6 + 0.8 * points[i + 2]!);
    path.push([
      i === 0 ? 'M' : 'L',
      points[i]! - (dy / length) * reach,
      points[i + 1]! + (dx / length) * reach,
    ]);
  }
  if (path.length === 1) path.push(['L', points[0]! + 0.01, points[1]!]);
  return path;
}
