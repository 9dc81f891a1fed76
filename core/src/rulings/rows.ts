import type { PaintItem } from '../paint/items.js';
import { UNITS_PER_MM } from '../pages/page.js';
import type { Plane } from '../pages/ruling.js';
import { line, MARGIN_MM, segment, steps } from '../pages/ruling.js';

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
export function handwriting(plane: Plane): PaintItem[] {
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
export function music(plane: Plane): PaintItem[] {
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
