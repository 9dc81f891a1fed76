import type { Matrix } from '../geometry/matrix.js';
import { applyMatrix } from '../geometry/matrix.js';
import type { TurnedBox } from '../geometry/turnedBox.js';
import { boxCentre, rotationAbout } from '../geometry/turnedBox.js';
import { INK_WIDTH } from './fields.js';

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

/** A flat list whose every `stride` numbers begin with an x and a y, transformed and rounded to hundredths. */
export function transformPoints(points: readonly number[], transform: Transform, stride: number): number[] {
  const matrix = transformMatrix(transform);
  const mapped = [...points];
  for (let i = 0; i < points.length; i += stride) {
    const [x, y] = applyMatrix(matrix, points[i]!, points[i + 1]!);
    mapped[i] = round(x);
    mapped[i + 1] = round(y);
  }
  return mapped;
}

const round = (value: number) => Math.round(value * 100) / 100;

/** The style of a line after a transform: it stays as thick as it is unless it is resized. */
export function transformWidth(width: number, transform: Transform): { style?: { width: number } } {
  if (transform.kind !== 'resize') return {};
  const factor = Math.sqrt(Math.abs(transform.fx * transform.fy));
  return { style: { width: roundWithin(width * factor, INK_WIDTH) } };
}

/** A value between two others, rounded to hundredths. */
export function roundWithin(value: number, { min, max }: { min: number; max: number }): number {
  return Math.min(max, Math.max(min, round(value)));
}

/** What changes of a turned box; one that cannot be mirrored has no `flip`. */
export function transformBox(box: TurnedBox, transform: Transform): Partial<TurnedBox> {
  const [cx, cy] = applyMatrix(transformMatrix(transform), ...boxCentre(box));
  const [fx, fy] = boxFactors(box.rotation, transform);
  const width = Math.max(1, box.width * fx);
  const height = Math.max(1, box.height * fy);
  const place = { x: round(cx - width / 2), y: round(cy - height / 2) };
  switch (transform.kind) {
    case 'move':
      return place;
    case 'resize':
      return { ...place, width: round(width), height: round(height) };
    case 'turn':
      return { ...place, rotation: upright(box.rotation + transform.degrees) };
    case 'flip': {
      if (box.flip === undefined) return place;
      return { ...place, flip: !box.flip, rotation: upright((transform.vertical ? 180 : 0) - box.rotation) };
    }
  }
}

/** How a resize stretches a box along its own sides: boxes that stand askew are resized alike both ways. */
export function boxFactors(rotation: number, transform: Transform): [number, number] {
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
