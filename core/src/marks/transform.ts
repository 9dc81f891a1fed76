import type { Matrix } from '../geometry/matrix.js';
import { applyMatrix } from '../geometry/matrix.js';
import { boxCentre, rotationAbout } from '../geometry/turnedBox.js';
import { STRIDE } from '../ink/points.js';
import { markBox } from './bounds.js';
import { INK_WIDTH, TEXT_SIZE } from './check.js';
import type { BoxMark, Mark, MarkOf, MarkPatch } from './mark.js';

/** What can be done to marks together. Page units, degrees clockwise. */
export type Transform =
  | { kind: 'move'; dx: number; dy: number }
  /** Stretches by `fx` and `fy` away from a point that stays. */
  | { kind: 'resize'; fx: number; fy: number; x: number; y: number }
  | { kind: 'turn'; degrees: number; x: number; y: number }
  /** Mirrors left to right, or top to bottom, at a line through a point. */
  | { kind: 'flip'; vertical: boolean; x: number; y: number };

export function transformMatrix(transform: Transform): Matrix {
  switch (transform.kind) {
    case 'move':
      return [1, 0, 0, 1, transform.dx, transform.dy];
    case 'resize': {
      const { fx, fy, x, y } = transform;
      return [fx, 0, 0, fy, x - fx * x, y - fy * y];
    }
    case 'turn':
      return rotationAbout(transform.degrees, transform.x, transform.y);
    case 'flip':
      return transform.vertical ? [1, 0, 0, -1, 0, 2 * transform.y] : [-1, 0, 0, 1, 2 * transform.x, 0];
  }
}

/** The patch that does a transform to a mark. Lines stay as thick as they are unless all is resized alike. */
export function transformPatch(mark: Mark, transform: Transform): MarkPatch {
  const matrix = transformMatrix(transform);
  switch (mark.kind) {
    case 'stroke':
      return { points: mapFlat(mark.points, matrix, STRIDE), ...scaledWidth(mark, transform) };
    case 'path':
      return { points: mapFlat(mark.points, matrix, 2), ...scaledWidth(mark, transform) };
    case 'quote':
      // It stays with its words.
      return {};
    case 'fill':
      return { rings: mark.rings.map((ring) => mapFlat(ring, matrix, 2)) };
    case 'text':
    case 'shape':
    case 'stamp':
    case 'note':
    case 'picture':
    case 'patch':
      return transformBox(mark, transform, matrix);
  }
}

function mapFlat(points: readonly number[], matrix: Matrix, stride: number): number[] {
  const mapped = [...points];
  for (let i = 0; i < points.length; i += stride) {
    const [x, y] = applyMatrix(matrix, points[i]!, points[i + 1]!);
    mapped[i] = round(x);
    mapped[i + 1] = round(y);
  }
  return mapped;
}

const round = (value: number) => Math.round(value * 100) / 100;

function scaledWidth(mark: MarkOf<'stroke' | 'path'>, transform: Transform): MarkPatch {
  if (transform.kind !== 'resize') return {};
  const { width } = mark.style;
  const factor = Math.sqrt(Math.abs(transform.fx * transform.fy));
  return { style: { width: clamp(width * factor, INK_WIDTH.min, INK_WIDTH.max) } };
}

function clamp(value: number, min: number, max: number): number {
  return Math.min(max, Math.max(min, round(value)));
}

function transformBox(mark: BoxMark, transform: Transform, matrix: Matrix): MarkPatch {
  const box = markBox(mark);
  const [cx, cy] = applyMatrix(matrix, ...boxCentre(box));
  const [fx, fy] = boxFactors(box.rotation, transform);
  const width = Math.max(1, box.width * fx);
  const height = Math.max(1, box.height * fy);
  const patch: MarkPatch = { x: round(cx - width / 2), y: round(cy - height / 2) };
  if (transform.kind === 'resize') {
    patch.width = round(width);
    if (mark.kind === 'text') {
      if (fy !== 1) patch.style = { size: clamp(mark.style.size * fy, TEXT_SIZE.min, TEXT_SIZE.max) };
    } else patch.height = round(height);
  }
  if (transform.kind === 'turn') patch.rotation = upright(mark.rotation + transform.degrees);
  if (transform.kind === 'flip' && 'flip' in mark) {
    patch.flip = !mark.flip;
    patch.rotation = upright((transform.vertical ? 180 : 0) - mark.rotation);
  }
  return patch;
}

/** How a resize stretches a box along its own sides: boxes that stand askew are resized alike both ways. */
function boxFactors(rotation: number, transform: Transform): [number, number] {
  if (transform.kind !== 'resize') return [1, 1];
  const [fx, fy] = [Math.abs(transform.fx), Math.abs(transform.fy)];
  if (rotation % 180 === 0) return [fx, fy];
  if (rotation % 90 === 0) return [fy, fx];
  const both = Math.sqrt(fx * fy);
  return [both, both];
}

/** The same angle between -180 and 180. */
function upright(degrees: number): number {
  const turned = ((degrees % 360) + 360) % 360;
  return round(turned > 180 ? turned - 360 : turned);
}
