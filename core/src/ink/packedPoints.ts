import { MAX_POINTS, STRIDE } from './points.js';

declare function btoa(binary: string): string;
declare function atob(text: string): string;

/** Steps to the unit of x, y, pressure and time: what `packPoint` rounds to. */
const STEPS = [100, 100, 1000, 1] as const;
/** Most bytes of a number: 35 bits hold twice the farthest distance between two points. */
const MAX_BYTES = 5;

/**
 * A stroke's points in about a third of their room as JSON: differences to the point before, as whole steps,
 * zigzag and variable-length coded (Protocol Buffers Encoding, "Signed Integers" and "Base 128 Varints"), in
 * base64 (RFC 4648 §4). Undefined where points are finer than the steps and something would be lost.
 */
export function packPoints(points: readonly number[]): string | undefined {
  const bytes: number[] = [];
  const before = [0, 0, 0, 0];
  for (let i = 0; i < points.length; i++) {
    const k = i % STRIDE;
    const step = STEPS[k]!;
    const value = Math.round(points[i]! * step);
    if (value / step !== points[i]) return undefined;
    const difference = value - before[k]!;
    before[k] = value;
    let left = difference < 0 ? -2 * difference - 1 : 2 * difference;
    while (left >= 128) {
      bytes.push((left % 128) + 128);
      left = Math.floor(left / 128);
    }
    bytes.push(left);
  }
  return btoa(binaryOf(bytes));
}

/** The points of `packPoints`; undefined where a text from outside is no such thing. */
export function unpackPoints(text: string): number[] | undefined {
  let binary;
  try {
    binary = atob(text);
  } catch {
    // Not base64: the caller refuses it.
    return undefined;
  }
  const points: number[] = [];
  const before = [0, 0, 0, 0];
  for (let i = 0; i < binary.length;) {
    let [value, factor, count] = [0, 1, 0];
    for (;;) {
      const byte = binary.charCodeAt(i++);
      if (Number.isNaN(byte) || ++count > MAX_BYTES) return undefined;
      value += (byte % 128) * factor;
      factor *= 128;
      if (byte < 128) break;
    }
    const k = points.length % STRIDE;
    before[k]! += value % 2 ? -(value + 1) / 2 : value / 2;
    if (points.push(before[k]! / STEPS[k]!) > MAX_POINTS * STRIDE) return undefined;
  }
  return points.length > 0 && points.length % STRIDE === 0 ? points : undefined;
}

/** In pieces, since a call takes only so many arguments. */
function binaryOf(bytes: readonly number[]): string {
  let binary = '';
  for (let i = 0; i < bytes.length; i += 8192) binary += String.fromCharCode(...bytes.slice(i, i + 8192));
  return binary;
}
