import { boundsOfFlat } from '../../geometry/path.js';
import { ringPath, solid } from '../../paint/items.js';
import { boxTarget } from '../boxParts.js';
import type { PointKind } from '../kind.js';
import { CONTRAST, contrastLack } from '../contrastLack.js';
import type { Transform } from '../transform.js';
import { transformPoints } from '../transform.js';
import type { FormulaMark } from './formulaMark.js';
import { FORMULA_FIELDS, FORMULA_STYLE } from './formulaMark.js';

export const formula: PointKind<FormulaMark> = {
  fields: FORMULA_FIELDS,
  style: FORMULA_STYLE,
  name: () => 'formula',
  content: ({ tex }) => tex,
  problems: ({ style }, paper) => contrastLack(style.colour, paper, CONTRAST.large),
  bounds,
  target: (mark) => boxTarget({ ...bounds(mark), rotation: 0 }),
  transform(mark, transform) {
    const moved = transform.kind === 'flip' ? beyond(mark, transform) : transform;
    const outlines = mark.outlines.map(({ rings, colour }) => ({
      rings: rings.map((ring) => transformPoints(ring, moved, 2)),
      colour,
    }));
    return { outlines };
  },
  paint: ({ outlines, style: { colour, opacity } }) =>
    outlines.map((part) => ({ ...solid(part.rings.flatMap(ringPath), part.colour ?? colour), opacity })),
  area: () => [],
  hides: () => false,
  needs: 'words',
  exported: true,
  box: null,
};

function bounds({ outlines }: FormulaMark) {
  return boundsOfFlat(
    outlines.flatMap(({ rings }) => rings.flat()),
    2,
  );
}

/** Mirrored it could not be read: it goes to the other side as it is. */
function beyond(mark: FormulaMark, { vertical, x, y }: Transform & { kind: 'flip' }): Transform {
  const box = bounds(mark);
  const [dx, dy] = [2 * (x - box.x) - box.width, 2 * (y - box.y) - box.height];
  return { kind: 'move', dx: vertical ? 0 : dx, dy: vertical ? dy : 0 };
}
