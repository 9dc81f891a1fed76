import type { Rect } from './rect.js';
import { rectFromCorners } from './rect.js';

interface Place {
  x: number;
  y: number;
}

/** Degrees that straight lines and turns keep to while the key for it is held. */
export const ANGLE_STEP = 15;

/** The point at the same distance in the nearest direction of the angle step. */
export function snapAngle(from: Place, to: Place): Place {
  const distance = Math.hypot(to.x - from.x, to.y - from.y);
  const step = (ANGLE_STEP * Math.PI) / 180;
  const angle = Math.round(Math.atan2(to.y - from.y, to.x - from.x) / step) * step;
  return { x: from.x + distance * Math.cos(angle), y: from.y + distance * Math.sin(angle) };
}

/** The box that is dragged from one point to another: square, or with the first point in its middle, as one wants. */
export function draggedBox(from: Place, to: Place, wanted: { square: boolean; centred: boolean }): Rect {
  let [dx, dy] = [to.x - from.x, to.y - from.y];
  if (wanted.square) {
    const side = Math.max(Math.abs(dx), Math.abs(dy));
    [dx, dy] = [Math.sign(dx || 1) * side, Math.sign(dy || 1) * side];
  }
  const { x, y, width, height } = wanted.centred
    ? rectFromCorners(from.x - dx, from.y - dy, from.x + dx, from.y + dy)
    : rectFromCorners(from.x, from.y, from.x + dx, from.y + dy);
  return { x, y, width: Math.max(1, width), height: Math.max(1, height) };
}

/** The smallest side of a part that is nudged, of the whole. */
const LEAST_PART = 0.05;

/** A part of something (0 to 1 each way) moved, or resized by its lower right corner; it stays within the whole. */
export function nudgedPart(part: Rect, dx: number, dy: number, resize: boolean): Rect {
  const within = (value: number, least: number, most: number) => Math.min(most, Math.max(least, value));
  const { x, y, width, height } = part;
  if (!resize) return { ...part, x: within(x + dx, 0, 1 - width), y: within(y + dy, 0, 1 - height) };
  return {
    x,
    y,
    width: within(width + dx, Math.min(LEAST_PART, 1 - x), 1 - x),
    height: within(height + dy, Math.min(LEAST_PART, 1 - y), 1 - y),
  };
}

/** How far something was dragged along the sides of a turned frame. */
export function turnedBack({ rotation }: { rotation: number }, start: Place, now: Place): Place {
  const angle = (-rotation * Math.PI) / 180;
  const [px, py] = [now.x - start.x, now.y - start.y];
  return { x: px * Math.cos(angle) - py * Math.sin(angle), y: px * Math.sin(angle) + py * Math.cos(angle) };
}
