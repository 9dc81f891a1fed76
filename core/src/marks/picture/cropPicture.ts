import type { PatchOf } from '../kind.js';
import type { PictureMark } from './pictureMark.js';

/** What belongs to each side of a picture as it is seen, also where it is mirrored. */
export interface Sides {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** The least that is left of a picture each way, of the whole. */
const LEAST = 0.03;

/** How much of a picture is left off at each side, of the whole. */
export function croppedSides({ crop, flip }: Pick<PictureMark, 'crop' | 'flip'>): Sides {
  const [before, after] = [crop.x, 1 - crop.x - crop.width];
  const [left, right] = flip ? [after, before] : [before, after];
  return { left, right, top: crop.y, bottom: 1 - crop.y - crop.height };
}

/**
 * What becomes of a picture whose sides are moved inwards by `moves`, of the whole, or outwards as far as there is
 * something to be seen. What stays in sight stays where it is.
 */
export function cropBy(picture: PictureMark, moves: Partial<Sides>): PatchOf<PictureMark> {
  const { crop, flip, rotation } = picture;
  const whole = { width: picture.width / crop.width, height: picture.height / crop.height };
  const old = croppedSides(picture);
  const [left, right] = cut(old.left, old.right, moves.left, moves.right);
  const [top, bottom] = cut(old.top, old.bottom, moves.top, moves.bottom);
  const width = (1 - left - right) * whole.width;
  const height = (1 - top - bottom) * whole.height;
  // The middle moves along the picture's own sides, which may be turned.
  const along = ((left - old.left - right + old.right) / 2) * whole.width;
  const down = ((top - old.top - bottom + old.bottom) / 2) * whole.height;
  const angle = (rotation * Math.PI) / 180;
  const middle = {
    x: picture.x + picture.width / 2 + along * Math.cos(angle) - down * Math.sin(angle),
    y: picture.y + picture.height / 2 + along * Math.sin(angle) + down * Math.cos(angle),
  };
  return {
    crop: { x: flip ? right : left, y: top, width: 1 - left - right, height: 1 - top - bottom },
    x: middle.x - width / 2,
    y: middle.y - height / 2,
    width,
    height,
  };
}

/** How far dragging a handle (at 0 to 1 each way) by so much along the picture's own sides moves them, of the whole picture. */
export function draggedSides(
  { width, height, crop }: Pick<PictureMark, 'width' | 'height' | 'crop'>,
  handle: { x: number; y: number },
  by: { x: number; y: number },
): Partial<Sides> {
  const [across, down] = [(by.x * crop.width) / width, (by.y * crop.height) / height];
  return {
    ...(handle.x === 0 && { left: across }),
    ...(handle.x === 1 && { right: -across }),
    ...(handle.y === 0 && { top: down }),
    ...(handle.y === 1 && { bottom: -down }),
  };
}

/** New ends of one way; something is left between them. */
function cut(near: number, far: number, moveNear = 0, moveFar = 0): [number, number] {
  const first = Math.min(Math.max(0, near + moveNear), 1 - far - LEAST);
  return [first, Math.min(Math.max(0, far + moveFar), 1 - first - LEAST)];
}
