import { boundsOfFlat, pointsOf, polylinePath } from '../../geometry/path.js';
import { solid } from '../../paint/items.js';
import { closed } from '../boxParts.js';
import type { PointKind } from '../kind.js';
import { transformPoints } from '../transform.js';
import type { FillMark } from './fillMark.js';
import { FILL_FIELDS, FILL_STYLE } from './fillMark.js';

export const fill: PointKind<FillMark> = {
  fields: FILL_FIELDS,
  style: FILL_STYLE,
  name: () => 'fill',
  content: () => undefined,
  bounds: ({ rings }) => boundsOfFlat(rings.flat(), 2),
  target: ({ rings }) => ({ lines: rings.map((ring) => closed(pointsOf(ring))), reach: 0, solid: true }),
  transform: ({ rings }, transform) => ({ rings: rings.map((ring) => transformPoints(ring, transform, 2)) }),
  paint({ rings, style: { colour, opacity } }) {
    const path = rings.flatMap((ring) => polylinePath(ring, true));
    return [{ ...solid(path, colour), opacity, rule: 'evenodd' }];
  },
  area: ({ rings }) => rings.map(pointsOf),
  hides: () => false,
  needs: 'everything',
  exported: true,
  box: null,
};
