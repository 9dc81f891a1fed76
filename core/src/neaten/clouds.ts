import { polygonArea } from '../geometry/polygon.js';
import { angleBetween } from './corners.js';
import type { Reading } from './reading.js';
import { fitCost, inBox } from './reading.js';
import { fitCircle } from './rounds.js';
import type { Point, Trace } from './trace.js';
import { apart } from './trace.js';

const [LEAST_LOBES, MOST_LOBES] = [4, 12];
/** How far a dent turns inwards at least, radians. */
const LEAST_DENT = 0.55;
/** How far a lobe bulges at least, as part of its width. */
const LEAST_BULGE = 0.13;

/** A closed line of lobes between dents: a cloud of as many lobes, as large. */
export function cloudReading(trace: Trace, tremor: number): Reading | undefined {
  const dents = dentsOf(trace);
  if (dents.length < LEAST_LOBES || dents.length > MOST_LOBES) return undefined;
  let [sum, count] = [0, 0];
  for (let i = 0; i < dents.length; i++) {
    const lobe = piece(trace, dents[i]!, dents[(i + 1) % dents.length]!);
    if (lobe.length < 4 || bulgeOf(lobe) < LEAST_BULGE) return undefined;
    const circle = fitCircle({
      x: Float64Array.from(lobe, ([x]) => x),
      y: Float64Array.from(lobe, ([, y]) => y),
    });
    if (!circle) return undefined;
    sum += circle.off ** 2 * lobe.length;
    count += lobe.length;
  }
  const [xs, ys] = [trace.x, trace.y];
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  const box = { x, y, width: Math.max(...xs) - x, height: Math.max(...ys) - y };
  const body = inBox('cloud', box, 0, { sides: dents.length });
  const off = Math.sqrt(sum / count) / trace.size;
  return { kind: 'cloud', body, cost: fitCost(0.6 * off, tremor, 0.6 * dents.length), off };
}

/** Where the line turns inwards sharply. */
function dentsOf({ x, y }: Trace): number[] {
  const count = x.length - 1;
  const reach = 4;
  const ring = Array.from({ length: count }, (_, i): Point => [x[i]!, y[i]!]);
  const hand = Math.sign(polygonArea(ring));
  const turn = ring.map(([px, py], i) => {
    const [a, b] = [ring[(i - reach + count) % count]!, ring[(i + reach) % count]!];
    return -hand * angleBetween(px - a[0], py - a[1], b[0] - px, b[1] - py);
  });
  return turn.flatMap((value, i) => {
    if (value < LEAST_DENT) return [];
    for (let k = -reach; k <= reach; k++) {
      const other = turn[(i + k + count) % count]!;
      if (other > value || (other === value && k < 0)) return [];
    }
    return [i];
  });
}

function piece({ x, y }: Trace, from: number, to: number): Point[] {
  const count = x.length - 1;
  const length = (to - from + count) % count || count;
  return Array.from({ length: length + 1 }, (_, i): Point => [
    x[(from + i) % count]!,
    y[(from + i) % count]!,
  ]);
}

function bulgeOf(lobe: readonly Point[]): number {
  const [a, b] = [lobe[0]!, lobe.at(-1)!];
  const width = apart(a, b) || 1;
  const off = lobe.map(([x, y]) => Math.abs((x - a[0]) * (b[1] - a[1]) - (y - a[1]) * (b[0] - a[0])) / width);
  return Math.max(...off) / width;
}
