import { boundsOfPoints, boxCorners, boxMatrix } from '../../geometry/turnedBox.js';
import { boxTarget } from '../boxParts.js';
import type { BoxKind } from '../kind.js';
import { transformBox } from '../transform.js';
import type { PictureMark } from './pictureMark.js';
import { PICTURE_FIELDS, PICTURE_STYLE } from './pictureMark.js';

const box = ({ x, y, width, height, rotation, flip }: PictureMark) => ({
  x,
  y,
  width,
  height,
  rotation,
  flip,
});

export const picture: BoxKind<PictureMark> = {
  fields: PICTURE_FIELDS,
  style: PICTURE_STYLE,
  name: () => 'picture',
  content: () => undefined,
  problems: ({ alt }) => (alt === null ? [{ what: 'description' }] : []),
  bounds: (mark) => boundsOfPoints(boxCorners(mark)),
  target: boxTarget,
  transform: (mark, transform) => transformBox(box(mark), transform),
  paint(mark) {
    const { material, x, y, width, height, crop, style } = mark;
    const { opacity } = style;
    return [{ kind: 'picture', material, x, y, width, height, crop, opacity, matrix: boxMatrix(mark) }];
  },
  area: (mark) => [boxCorners(mark)],
  hides: () => true,
  needs: 'everything',
  exported: true,
  box,
};
