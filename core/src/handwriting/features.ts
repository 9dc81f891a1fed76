import { STRIDE } from '../ink/points.js';

/** A character as it is written: its strokes, each flat x, y. */
export type Glyph = readonly (readonly number[])[];

/** Cells of the grid to a side, and directions in each. */
const CELLS = 7;
const DIRECTIONS = 4;
/** Numbers that describe a character. */
export const FEATURES = CELLS * CELLS * DIRECTIONS;

/** A character is described by steps of this part of its size. */
const STEP = 0.03;

export interface GlyphBox {
  left: number;
  top: number;
  width: number;
  height: number;
}

/** The places of ink without pressure and time. */
export function glyphOf(strokes: readonly (readonly number[])[]): Glyph {
  return strokes.map((points) => {
    const flat: number[] = [];
    for (let i = 0; i + 1 < points.length; i += STRIDE) flat.push(points[i]!, points[i + 1]!);
    return flat;
  });
}

export function boxOfGlyph(glyph: Glyph): GlyphBox {
  let [left, right, top, bottom] = [Infinity, -Infinity, Infinity, -Infinity];
  for (const line of glyph)
    for (let i = 0; i + 1 < line.length; i += 2) {
      left = Math.min(left, line[i]!);
      right = Math.max(right, line[i]!);
      top = Math.min(top, line[i + 1]!);
      bottom = Math.max(bottom, line[i + 1]!);
    }
  return { left, top, width: right - left, height: bottom - top };
}

/**
 * What a character looks like, whatever its size, and whichever way and in whichever order its strokes were drawn: how much of
 * it runs in each of four directions in each cell of a grid, of length 1 (direction element features: Kawamura, Yura, Hayama
 * et al. 1992; proportions kept as far as they tell something: Liu, Nakashima, Sako, Fujisawa 2004).
 */
export function featuresOf(glyph: Glyph): Float32Array {
  const { left, top, width, height } = boxOfGlyph(glyph);
  const size = Math.max(width, height, 1e-6);
  const narrow = Math.sqrt(Math.sin((Math.PI / 2) * (Math.min(width, height) / size)));
  const [scaleX, scaleY] = width >= height ? [1, narrow] : [narrow, 1];
  const [ox, oy] = [(1 - scaleX) / 2, (1 - scaleY) / 2];
  const place = (value: number, from: number, extent: number, scale: number, offset: number) =>
    extent > 0 ? ((value - from) / extent) * scale + offset : 0.5;
  const features = new Float32Array(FEATURES);
  for (const line of glyph) {
    let [ax, ay] = [0, 0];
    for (let i = 0; i + 1 < line.length; i += 2) {
      const x = place(line[i]!, left, width, scaleX, ox);
      const y = place(line[i + 1]!, top, height, scaleY, oy);
      if (i > 0) addLine(features, ax, ay, x, y);
      [ax, ay] = [x, y];
    }
  }
  return ofLengthOne(features);
}

function addLine(features: Float32Array, ax: number, ay: number, bx: number, by: number): void {
  const length = Math.hypot(bx - ax, by - ay);
  if (length === 0) return;
  // Undirected: which way a line was drawn says nothing.
  const angle = (Math.atan2(by - ay, bx - ax) / Math.PI + 1) % 1;
  const at = angle * DIRECTIONS;
  const [first, more] = [Math.floor(at) % DIRECTIONS, at - Math.floor(at)];
  const steps = Math.max(1, Math.ceil(length / STEP));
  for (let n = 0; n < steps; n++) {
    const part = (n + 0.5) / steps;
    const share = length / steps;
    spread(features, ax + (bx - ax) * part, ay + (by - ay) * part, first, share * (1 - more));
    spread(features, ax + (bx - ax) * part, ay + (by - ay) * part, (first + 1) % DIRECTIONS, share * more);
  }
}

/** Adds to the four cells round a place, each by how near it is. */
function spread(features: Float32Array, x: number, y: number, direction: number, amount: number): void {
  const [gx, gy] = [x * (CELLS - 1), y * (CELLS - 1)];
  const [cx, cy] = [Math.min(CELLS - 2, Math.floor(gx)), Math.min(CELLS - 2, Math.floor(gy))];
  const [fx, fy] = [gx - cx, gy - cy];
  const at = (cy * CELLS + cx) * DIRECTIONS + direction;
  features[at]! += amount * (1 - fx) * (1 - fy);
  features[at + DIRECTIONS]! += amount * fx * (1 - fy);
  features[at + CELLS * DIRECTIONS]! += amount * (1 - fx) * fy;
  features[at + (CELLS + 1) * DIRECTIONS]! += amount * fx * fy;
}

function ofLengthOne(features: Float32Array): Float32Array {
  let sum = 0;
  for (let i = 0; i < FEATURES; i++) {
    features[i] = Math.sqrt(features[i]!);
    sum += features[i]! ** 2;
  }
  const length = Math.sqrt(sum) || 1;
  for (let i = 0; i < FEATURES; i++) features[i]! /= length;
  return features;
}
