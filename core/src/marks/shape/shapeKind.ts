import { flattenPath } from '../../geometry/path.js';
import { growRect } from '../../geometry/rect.js';
import { boundsOfPoints, boxCorners, boxMatrix } from '../../geometry/turnedBox.js';
import { FIGURES_REACH, hasFigures, paintFigures } from '../../paint/figures.js';
import { mapped, paintLines } from '../../paint/items.js';
import type { BoxKind } from '../kind.js';
import { LINE_STYLE } from '../lineStyle.js';
import { MEASURED } from '../measures.js';
import { transformBox } from '../transform.js';
import { shapePath } from './shapeGeometry.js';
import type { ShapeMark } from './shapeMark.js';
import { SHAPE_FIELDS } from './shapeMark.js';

const box = ({ x, y, width, height, rotation, flip }: ShapeMark) => ({ x, y, width, height, rotation, flip });
const edge = (mark: ShapeMark) => mapped(shapePath(mark), boxMatrix(mark));
/** A bracket is an open line. */
const isOpen = ({ form }: ShapeMark) => form === 'bracket';

export const shape: BoxKind<ShapeMark> = {
  fields: SHAPE_FIELDS,
  optional: MEASURED,
  style: LINE_STYLE,
  name: () => 'shape',
  content: ({ form }) => form,
  bounds: (mark) =>
    growRect(
      boundsOfPoints(boxCorners(mark)),
      (mark.style.line === null ? 0 : mark.style.width) + (hasFigures(mark) ? FIGURES_REACH : 0),
    ),
  target: (mark) => ({
    lines: [flattenPath(edge(mark))],
    reach: mark.style.width / 2,
    solid: mark.style.fill !== null,
  }),
  transform: (mark, transform) => transformBox(box(mark), transform),
  paint: (mark) => [...paintLines(edge(mark), mark.style, !isOpen(mark)), ...paintFigures(mark)],
  area: (mark) => (isOpen(mark) ? [] : [flattenPath(edge(mark))]),
  hides: ({ style }) => style.fill !== null,
  needs: 'everything',
  exported: true,
  box,
};
