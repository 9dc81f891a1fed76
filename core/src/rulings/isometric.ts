import type { PathStep } from '../geometry/path.js';
import type { Plane } from '../pages/ruling.js';
import { segment, steps } from '../pages/ruling.js';

/** Lines at 30°, 90° and 150°, whose crossings are equally far apart. */
export function isometric({ left, top, right, bottom, step }: Plane): PathStep[] {
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
