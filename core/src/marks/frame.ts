import { ANGLE_STEP, turnedBack } from '../geometry/dragging.js';
import type { Rect } from '../geometry/rect.js';
import { markBox } from './bounds.js';
import type { Mark } from './mark.js';
import { hasBox } from './mark.js';
import { boundsOf } from './select.js';
import type { Transform } from './transform.js';

/** What is drawn round selected marks. Page units, degrees clockwise about its middle. */
export interface Frame extends Rect {
  rotation: number;
}

/** A place on a frame, 0 to 1 each way. */
interface Handle {
  x: number;
  y: number;
}

interface Place {
  x: number;
  y: number;
}

/** However far a handle is dragged in, this much of a side is left. */
const LEAST = 0.02;

/** The frame of marks: a single turned box has one turned with it, several marks have an upright one. */
export function frameOf(marks: readonly Mark[]): Frame {
  const [only] = marks;
  if (marks.length === 1 && only && hasBox(only)) return markBox(only);
  return { ...(boundsOf(marks) ?? { x: 0, y: 0, width: 0, height: 0 }), rotation: 0 };
}

/**
 * What dragging a handle from one point to another does: a stretch away from the opposite side or corner, or from
 * the middle. Corners keep proportions and sides do not; `steady` turns both round. A turned frame is stretched from its middle.
 */
export function frameResize(
  frame: Frame,
  handle: Handle,
  start: Place,
  now: Place,
  { steady, centred }: { steady: boolean; centred: boolean },
): Extract<Transform, { kind: 'resize' }> {
  const { x: dx, y: dy } = turnedBack(frame, start, now);
  const reach = centred ? 2 : 1;
  const grow = (size: number, by: number, at: number) =>
    at === 0.5 ? 1 : Math.max(LEAST, 1 + ((at === 1 ? by : -by) * reach) / Math.max(1, size));
  let [fx, fy] = [grow(frame.width, dx, handle.x), grow(frame.height, dy, handle.y)];
  const isCorner = handle.x !== 0.5 && handle.y !== 0.5;
  if (isCorner !== steady) fx = fy = isCorner ? Math.max(fx, fy) : fx * fy;
  const fixed = (at: number) => (centred || frame.rotation % 360 !== 0 ? 0.5 : 1 - at);
  return {
    kind: 'resize',
    fx,
    fy,
    x: frame.x + fixed(handle.x) * frame.width,
    y: frame.y + fixed(handle.y) * frame.height,
  };
}

/** The turn about a frame's middle by which one point comes to the direction of another; `steady` keeps to the angle step. */
export function frameTurn(
  frame: Rect,
  start: Place,
  now: Place,
  steady: boolean,
): Extract<Transform, { kind: 'turn' }> {
  const [x, y] = [frame.x + frame.width / 2, frame.y + frame.height / 2];
  const angle = (at: Place) => (Math.atan2(at.y - y, at.x - x) * 180) / Math.PI;
  const degrees = angle(now) - angle(start);
  return { kind: 'turn', degrees: steady ? Math.round(degrees / ANGLE_STEP) * ANGLE_STEP : degrees, x, y };
}
