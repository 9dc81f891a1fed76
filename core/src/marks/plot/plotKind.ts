import { compose } from '../../geometry/matrix.js';
import type { Matrix } from '../../geometry/matrix.js';
import { boundsOfFlat, mapPath, polylinePath } from '../../geometry/path.js';
import type { Rect } from '../../geometry/rect.js';
import { growRect, unionRect } from '../../geometry/rect.js';
import { boxMatrix } from '../../geometry/turnedBox.js';
import type { PaintOf } from '../../paint/items.js';
import { ringPath, solid } from '../../paint/items.js';
import { boxTarget, turnedReach } from '../boxParts.js';
import type { BoxKind } from '../kind.js';
import { transformBox } from '../transform.js';
import type { Drawing, DrawingPart, PlotMark } from './plotMark.js';
import { PLOT_FIELDS, PLOT_STYLE } from './plotMark.js';

type Drawn = PaintOf<'fill'> | PaintOf<'line'>;

const box = ({ x, y, width, height, rotation }: PlotMark) => ({ x, y, width, height, rotation });

export const plot: BoxKind<PlotMark> = {
  fields: PLOT_FIELDS,
  style: PLOT_STYLE,
  name: () => 'plot',
  content: ({ alt }) => alt ?? undefined,
  bounds,
  target: boxTarget,
  transform: (mark, transform) => transformBox(box(mark), transform),
  paint(mark) {
    const { sx, sy, scale } = stretch(mark);
    const inBox: Matrix = [sx, 0, 0, sy, mark.x, mark.y];
    const turn = boxMatrix(mark);
    const matrix = turn ? compose(inBox, turn) : inBox;
    return mark.drawing.parts.map((part) => painted(part, matrix, scale, mark.style.opacity));
  },
  area: () => [],
  hides: () => false,
  needs: 'everything',
  exported: true,
  box,
};

function stretch({ width, height, drawing }: PlotMark) {
  const [sx, sy] = [width / drawing.width, height / drawing.height];
  return { sx, sy, scale: Math.sqrt(sx * sy) };
}

/** The box, and what of the drawing goes beyond it. */
function bounds(mark: PlotMark): Rect {
  const { sx, sy, scale } = stretch(mark);
  const { x, y, width, height, widest } = extentOf(mark.drawing);
  const drawn = { x: mark.x + x * sx, y: mark.y + y * sy, width: width * sx, height: height * sy };
  return turnedReach(mark, growRect(unionRect(mark, drawn), (widest * scale) / 2));
}

const extents = new WeakMap<Drawing, Rect & { widest: number }>();

/** What the parts of a drawing take of it, and how broad the broadest line is; looked at once. */
function extentOf(drawing: Drawing): Rect & { widest: number } {
  const known = extents.get(drawing);
  if (known) return known;
  const points = drawing.parts.flatMap((part) => ('line' in part ? [part.line] : part.rings)).flat();
  const widest = Math.max(0, ...drawing.parts.map((part) => ('line' in part ? part.width : 0)));
  const extent = { ...boundsOfFlat(points, 2), widest };
  extents.set(drawing, extent);
  return extent;
}

/** A drawing as it is, in a box of its own size at 0, 0. */
export function paintDrawing({ parts }: Drawing): Drawn[] {
  return parts.map((part) => painted(part, [1, 0, 0, 1, 0, 0], 1, 1));
}

function painted(part: DrawingPart, matrix: Matrix, scale: number, opacity: number): Drawn {
  if ('rings' in part) {
    const path = mapPath(part.rings.flatMap(ringPath), matrix);
    return { ...solid(path, part.colour), opacity: part.opacity * opacity };
  }
  const { line, colour, width, dash } = part;
  const path = mapPath(polylinePath(line, false), matrix);
  const dashes = dash > 0 ? [dash * scale, dash * scale] : [];
  return { kind: 'line', path, colour, width: width * scale, dash: dashes, opacity };
}
