import type { PaintItem } from '../paint/items.js';
import type { Plane } from '../pages/ruling.js';
import { across, down, line, segment, steps } from '../pages/ruling.js';
import { written } from './written.js';

/** Squares with both axes through the middle, numbered. */
export function axes(plane: Plane): PaintItem[] {
  const { left, top, right, bottom, page, step, every, faint, firm } = plane;
  const [cx, cy] = [page.width / 2, page.height / 2];
  const size = Math.min(13, step * 0.42);
  const items: PaintItem[] = [
    line([...across(plane), ...down(plane)], faint, 0.7),
    line([...segment(left, cy, right, cy), ...segment(cx, top, cx, bottom)], firm, 2),
  ];
  const label = (n: number, x: number, y: number) =>
    items.push(written(String(n * every).replace('-', '−'), x, y, size, firm));
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
