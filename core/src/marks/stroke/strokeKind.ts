import { growRect } from '../../geometry/rect.js';
import { boundsOfFlat } from '../../geometry/path.js';
import { STRIDE } from '../../ink/points.js';
import type { PointKind, Point } from '../kind.js';
import { transformPoints, transformWidth } from '../transform.js';
import type { StrokeMark } from './strokeMark.js';
import { INK_STYLE, STROKE_FIELDS } from './strokeMark.js';
import { paintStroke } from './strokePaint.js';

export const stroke: PointKind<StrokeMark> = {
  fields: STROKE_FIELDS,
  style: INK_STYLE,
  name: ({ style }) => (style.nature === 'highlighter' ? 'highlight' : 'ink'),
  content: () => undefined,
  // A single point is drawn as a dot that reaches one unit on.
  bounds: ({ points, style }) => growRect(boundsOfFlat(points, STRIDE), style.width + 1),
  target({ points, style }) {
    const line: Point[] = [];
    for (let i = 0; i < points.length; i += STRIDE) line.push([points[i]!, points[i + 1]!]);
    return { lines: [line], reach: style.width / 2, solid: false };
  },
  transform: ({ points, style }, transform) => ({
    points: transformPoints(points, transform, STRIDE),
    ...transformWidth(style.width, transform),
  }),
  paint: (mark) => paintStroke(mark),
  area: () => [],
  hides: () => false,
  needs: 'ink',
  exported: true,
  box: null,
};
