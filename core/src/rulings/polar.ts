import { arcPath } from '../geometry/arc.js';
import type { Path } from '../geometry/path.js';
import type { PaintItem } from '../paint/items.js';
import type { Plane } from '../pages/ruling.js';
import { line, segment } from '../pages/ruling.js';
import { written } from './written.js';

/** Degrees from ray to ray, and from number to number. */
const RAY = 15;
const NUMBERED = 30;
/** Most circles. */
const MOST = 400;

/** Circles round the middle of the page at equal distances, rays from it, and their angles counterclockwise from the right. */
export function polar({ left, top, right, bottom, page, step, faint, firm }: Plane): PaintItem[] {
  const [cx, cy] = [page.width / 2, page.height / 2];
  const farthest = Math.max(
    ...[left, right].flatMap((x) => [top, bottom].map((y) => Math.hypot(x - cx, y - cy))),
  );
  const count = Math.min(MOST, Math.floor(farthest / step));
  const circles: Path = Array.from({ length: count }, (_, n) => (n + 1) * step).flatMap((radius) => [
    ...arcPath([cx + radius, cy], [cx, cy + radius], [cx - radius, cy]),
    ...arcPath([cx - radius, cy], [cx, cy - radius], [cx + radius, cy]),
  ]);
  const at = (degrees: number, radius: number) => {
    const angle = (degrees * Math.PI) / 180;
    return [cx + radius * Math.cos(angle), cy - radius * Math.sin(angle)] as const;
  };
  const angles = Array.from({ length: 360 / RAY }, (_, n) => n * RAY);
  const rays = (some: readonly number[]) =>
    some.flatMap((angle) => segment(...at(angle, 0), ...at(angle, farthest)));
  const isAxis = (angle: number) => angle % 90 === 0;
  const size = Math.min(13, step * 0.42);
  const inside = Math.min(right - cx, bottom - cy) - 1.6 * size;
  return [
    line([...circles, ...rays(angles.filter((angle) => !isAxis(angle)))], faint, 0.8),
    line(rays(angles.filter(isAxis)), firm, 1.4),
    ...angles
      .filter((angle) => angle % NUMBERED === 0)
      .map((angle) => {
        const [x, y] = at(angle, inside);
        return written(`${angle}°`, x, y + size * 0.35, size, firm);
      }),
  ];
}
