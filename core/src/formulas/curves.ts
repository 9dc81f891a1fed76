import type { PathStep } from '../geometry/path.js';
import { bezierPoint } from '../geometry/path.js';

/** A closed outline by quadratic curves: x, y where it begins, then a control and an end of each curve. */
export type Ring = readonly number[];

/** A cubic curve becomes so many quadratic ones; at the size of a page nobody sees the difference. */
const PARTS = 4;

/** Outlines as closed rings of quadratic curves. */
export function ringsOf(steps: readonly PathStep[]): Ring[] {
  const rings: number[][] = [];
  for (const step of steps) {
    if (step[0] === 'M') rings.push([step[1], step[2]]);
    const ring = rings.at(-1);
    if (!ring || step[0] === 'M') continue;
    const [x, y] = [ring.at(-2)!, ring.at(-1)!];
    if (step[0] === 'Q') ring.push(step[1], step[2], step[3], step[4]);
    else if (step[0] === 'C') ring.push(...quadratic([x, y], step));
    else {
      const [ex, ey] = step[0] === 'Z' ? [ring[0]!, ring[1]!] : [step[1], step[2]];
      if (ex !== x || ey !== y) ring.push((x + ex) / 2, (y + ey) / 2, ex, ey);
    }
  }
  return rings.filter(({ length }) => length > 6);
}

/** A cubic curve as quadratic ones: each through the middle of its part. */
function quadratic(
  from: readonly [number, number],
  [, ax, ay, bx, by, ex, ey]: readonly ['C', number, number, number, number, number, number],
): number[] {
  const controls: [number, number][] = [[...from], [ax, ay], [bx, by], [ex, ey]];
  const at = (t: number) => bezierPoint(controls, t);
  let [px, py] = from;
  return Array.from({ length: PARTS }, (_, i) => {
    const [mx, my] = at((i + 0.5) / PARTS);
    const [qx, qy] = at((i + 1) / PARTS);
    // A quadratic curve passes its middle at a quarter of its ends and half of its control.
    const curve = [2 * mx - (px + qx) / 2, 2 * my - (py + qy) / 2, qx, qy];
    [px, py] = [qx, qy];
    return curve;
  }).flat();
}

/** A closed outline through corners; its curves are straight. */
export function straightRing(corners: readonly (readonly [number, number])[]): number[] {
  const [first] = corners;
  return [...corners, first!].flatMap(([x, y], i, all) => {
    const [px, py] = all[i - 1] ?? [x, y];
    return i === 0 ? [x, y] : [(px + x) / 2, (py + y) / 2, x, y];
  });
}
