/** An affine map [a b c d e f]: x' = a·x + c·y + e, y' = b·x + d·y + f (the order of ISO 32000-1 §8.3.3). */
export type Matrix = readonly [number, number, number, number, number, number];

export const IDENTITY: Matrix = [1, 0, 0, 1, 0, 0];

/** The map that applies `first`, then `second`. */
export function compose(first: Matrix, second: Matrix): Matrix {
  const [a, b, c, d, e, f] = first;
  const [A, B, C, D, E, F] = second;
  return [a * A + b * C, a * B + b * D, c * A + d * C, c * B + d * D, e * A + f * C + E, e * B + f * D + F];
}

export function applyMatrix(m: Matrix, x: number, y: number): [number, number] {
  return [m[0] * x + m[2] * y + m[4], m[1] * x + m[3] * y + m[5]];
}

/** The map back. The matrix has to have one: its determinant must not be 0. */
export function inverse([a, b, c, d, e, f]: Matrix): Matrix {
  const k = 1 / (a * d - b * c);
  return [d * k, -b * k, -c * k, a * k, (c * f - d * e) * k, (b * e - a * f) * k];
}
