import type { Photo } from './perspective.js';

/** Side of the squares whose paper is measured, as a part of the photo's longer side. */
const SQUARE = 1 / 24;
/** Of the lightest pixels in a square, so many are left out as glare. */
const GLARE = 0.06;
/** Paper lighter than this share of its measured lightness becomes white; ink darker than the other black. */
const WHITE_FROM = 0.94;
const BLACK_TO = 0.35;

/**
 * Makes the paper of a photographed sheet evenly white: every pixel is divided by the lightness of
 * the paper round it, measured in squares and interpolated between them (flat-field correction),
 * then stretched so that paper is white and ink dark. Colours stay.
 */
export function cleanPaper({ width, height, data }: Photo): Photo {
  const side = Math.max(8, Math.round(Math.max(width, height) * SQUARE));
  const [columns, rows] = [Math.ceil(width / side), Math.ceil(height / side)];
  const paper = Float32Array.from({ length: columns * rows }, (_, i) =>
    paperIn(data, width, height, (i % columns) * side, Math.floor(i / columns) * side, side),
  );
  const out = new Uint8ClampedArray(data);
  for (let y = 0, at = 0; y < height; y++) {
    for (let x = 0; x < width; x++, at += 4) {
      const light = between(paper, columns, rows, (x + 0.5) / side - 0.5, (y + 0.5) / side - 0.5);
      for (let i = 0; i < 3; i++) {
        const share = data[at + i]! / light;
        out[at + i] = (255 * (share - BLACK_TO)) / (WHITE_FROM - BLACK_TO);
      }
    }
  }
  return { width, height, data: out };
}

/** How light the paper in a square is: that of its light pixels, glare left out. */
function paperIn(
  data: Uint8ClampedArray,
  width: number,
  height: number,
  left: number,
  top: number,
  side: number,
): number {
  const counts = new Uint32Array(256);
  let all = 0;
  for (let y = top; y < Math.min(height, top + side); y++) {
    for (let x = left; x < Math.min(width, left + side); x++) {
      const at = (y * width + x) * 4;
      counts[Math.round(0.299 * data[at]! + 0.587 * data[at + 1]! + 0.114 * data[at + 2]!)]! += 1;
      all += 1;
    }
  }
  let passed = 0;
  for (let value = 255; value > 0; value--) {
    passed += counts[value]!;
    if (passed > all * GLARE) return Math.max(24, value);
  }
  return 255;
}

function between(grid: Float32Array, columns: number, rows: number, x: number, y: number): number {
  const left = Math.min(columns - 1, Math.max(0, Math.floor(x)));
  const top = Math.min(rows - 1, Math.max(0, Math.floor(y)));
  const right = Math.min(columns - 1, left + 1);
  const bottom = Math.min(rows - 1, top + 1);
  const [u, v] = [Math.min(1, Math.max(0, x - left)), Math.min(1, Math.max(0, y - top))];
  const upper = grid[top * columns + left]! * (1 - u) + grid[top * columns + right]! * u;
  const lower = grid[bottom * columns + left]! * (1 - u) + grid[bottom * columns + right]! * u;
  return upper * (1 - v) + lower * v;
}
