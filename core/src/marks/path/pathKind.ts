import { flattenPath } from '../../geometry/path.js';
import { growRect } from '../../geometry/rect.js';
import { boundsOfPoints } from '../../geometry/turnedBox.js';
import { FIGURES_REACH, hasFigures, paintFigures } from '../../paint/figures.js';
import { paintLines, solid } from '../../paint/items.js';
import type { PointKind } from '../kind.js';
import { LINE_STYLE } from '../lineStyle.js';
import { MEASURED } from '../measures.js';
import { transformPoints, transformWidth } from '../transform.js';
import { arrowHeads, pathCourse } from './pathGeometry.js';
import type { PathMark } from './pathMark.js';
import { PATH_FIELDS } from './pathMark.js';

const course = (mark: PathMark) => flattenPath(pathCourse(mark));

export const path: PointKind<PathMark> = {
  fields: PATH_FIELDS,
  optional: MEASURED,
  style: LINE_STYLE,
  name: () => 'path',
  content: () => undefined,
  bounds(mark) {
    const reach = [...course(mark), ...arrowHeads(mark).flatMap((head) => flattenPath(head))];
    return growRect(boundsOfPoints(reach), mark.style.width + (hasFigures(mark) ? FIGURES_REACH : 0));
  },
  target: (mark) => ({
    lines: [course(mark)],
    reach: mark.style.width / 2,
    solid: mark.closed && mark.style.fill !== null,
  }),
  transform: ({ points, style }, transform) => ({
    points: transformPoints(points, transform, 2),
    ...transformWidth(style.width, transform),
  }),
  paint(mark) {
    const { line, opacity } = mark.style;
    const heads = line === null ? [] : arrowHeads(mark).map((head) => ({ ...solid(head, line), opacity }));
    return [...paintLines(pathCourse(mark), mark.style, mark.closed), ...heads, ...paintFigures(mark)];
  },
  area: (mark) => (mark.closed ? [course(mark)] : []),
  hides: ({ closed, style }) => closed && style.fill !== null,
  needs: 'everything',
  exported: true,
  box: null,
};
