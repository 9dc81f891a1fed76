import { growRect } from '../../geometry/rect.js';
import { boundsOfPoints, boxCorners, boxMatrix } from '../../geometry/turnedBox.js';
import { mapped, onGround, rectanglePath, solid } from '../../paint/items.js';
import { boxTarget } from '../boxParts.js';
import { BOX } from '../fields.js';
import type { BoxKind } from '../kind.js';
import { transformBox } from '../transform.js';
import type { PatchMark } from './patchMark.js';
import { PATCH_STYLE } from './patchMark.js';

/** A patch that is smaller has no room for a seam; page units. */
const LEAST_SEAMED = 16;
const SEAM_INSET = 5;

const box = ({ x, y, width, height, rotation }: PatchMark) => ({ x, y, width, height, rotation });

export const patch: BoxKind<PatchMark> = {
  fields: BOX,
  style: PATCH_STYLE,
  name: () => 'patch',
  content: () => undefined,
  bounds: (mark) => boundsOfPoints(boxCorners(mark)),
  target: boxTarget,
  transform: (mark, transform) => transformBox(box(mark), transform),
  /** A plain cloth with a seam, so that it is not taken for part of the page. */
  paint(mark) {
    const matrix = boxMatrix(mark);
    const plain = solid(mapped(rectanglePath(mark), matrix), mark.style.colour);
    if (Math.min(mark.width, mark.height) < LEAST_SEAMED) return [plain];
    const path = mapped(rectanglePath(growRect(mark, -SEAM_INSET)), matrix);
    const colour = onGround(mark.style.colour);
    return [plain, { kind: 'line', path, colour, width: 1.5, dash: [6, 5], opacity: 0.7 }];
  },
  area: (mark) => [boxCorners(mark)],
  hides: () => true,
  needs: 'everything',
  exported: false,
  box,
};
