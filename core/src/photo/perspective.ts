/** Four corners as x, y: upper left, upper right, lower right, lower left. */
export type Corners = readonly [number, number, number, number, number, number, number, number];

/** A projective map: x' = (a·x + b·y + c) / (g·x + h·y + 1), y' = (d·x + e·y + f) / (g·x + h·y + 1). */
export type Homography = readonly [number, number, number, number, number, number, number, number];

export interface Photo {
  width: number;
  height: number;
  /** RGBA. */
  data: Uint8ClampedArray<ArrayBuffer>;
}

/** Four corners that lie on one line, or nearly so, enclose nothing. */
export class CornersError extends Error {
  override name = 'CornersError';
}

/**
 * The projective map that takes the corners of a rectangle of a size to four points: eight linear
 * equations (Heckbert, "Fundamentals of Texture Mapping and Image Warping", 1989, §2.2.3). Throws
 * CornersError.
 */
export function rectangleTo(corners: Corners, width: number, height: number): Homography {
  const rectangle = [0, 0, width, 0, width, height, 0, height];
  const rows: number[][] = [];
  for (let i = 0; i < 8; i += 2) {
    const [x, y] = [rectangle[i]!, rectangle[i + 1]!];
    const [u, v] = [corners[i]!, corners[i + 1]!];
    rows.push([x, y, 1, 0, 0, 0, -u * x, -u * y, u], [0, 0, 0, x, y, 1, -v * x, -v * y, v]);
  }
  return solve(rows) as unknown as Homography;
}

/** Gaussian elimination with partial pivoting of rows [coefficients …, right side]. */
function solve(rows: number[][]): number[] {
  const n = rows.length;
  for (let i = 0; i < n; i++) {
    let pivot = i;
    for (let r = i + 1; r < n; r++) if (Math.abs(rows[r]![i]!) > Math.abs(rows[pivot]![i]!)) pivot = r;
    [rows[i], rows[pivot]] = [rows[pivot]!, rows[i]!];
    const top = rows[i]!;
    if (Math.abs(top[i]!) < 1e-9) throw new CornersError('The corners enclose nothing.');
    for (let r = 0; r < n; r++) {
      if (r === i) continue;
      const factor = rows[r]![i]! / top[i]!;
      for (let c = i; c <= n; c++) rows[r]![c]! -= factor * top[c]!;
    }
  }
  return rows.map((row, i) => row[n]! / row[i]!);
}

/** The size of the sheet whose corners are seen at four points: the longer of each two opposite sides. */
export function sheetSize(corners: Corners): { width: number; height: number } {
  const side = (a: number, b: number) =>
    Math.hypot(corners[2 * a]! - corners[2 * b]!, corners[2 * a + 1]! - corners[2 * b + 1]!);
  return {
    width: Math.max(1, Math.round(Math.max(side(0, 1), side(3, 2)))),
    height: Math.max(1, Math.round(Math.max(side(0, 3), side(1, 2)))),
  };
}

/** The part of a photo between four corners as a rectangle, by bilinear interpolation. Throws CornersError. */
export function straighten(photo: Photo, corners: Corners, size = sheetSize(corners)): Photo {
  const [a, b, c, d, e, f, g, h] = rectangleTo(corners, size.width, size.height);
  const data = new Uint8ClampedArray(size.width * size.height * 4);
  for (let y = 0, at = 0; y < size.height; y++) {
    for (let x = 0; x < size.width; x++, at += 4) {
      // The middles of pixels are mapped.
      const [px, py] = [x + 0.5, y + 0.5];
      const w = g * px + h * py + 1;
      sample(photo, (a * px + b * py + c) / w - 0.5, (d * px + e * py + f) / w - 0.5, data, at);
    }
  }
  return { ...size, data };
}

function sample(
  { width, height, data }: Photo,
  x: number,
  y: number,
  out: Uint8ClampedArray,
  at: number,
): void {
  const left = Math.min(width - 1, Math.max(0, Math.floor(x)));
  const top = Math.min(height - 1, Math.max(0, Math.floor(y)));
  const right = Math.min(width - 1, left + 1);
  const bottom = Math.min(height - 1, top + 1);
  const [u, v] = [Math.min(1, Math.max(0, x - left)), Math.min(1, Math.max(0, y - top))];
  for (let i = 0; i < 4; i++) {
    const upper = data[(top * width + left) * 4 + i]! * (1 - u) + data[(top * width + right) * 4 + i]! * u;
    const lower =
      data[(bottom * width + left) * 4 + i]! * (1 - u) + data[(bottom * width + right) * 4 + i]! * u;
    out[at + i] = upper * (1 - v) + lower * v;
  }
}
