import type { Rect } from '../geometry/rect.js';
import { growRect, unionRect } from '../geometry/rect.js';
import { applyMatrix } from '../geometry/matrix.js';
import { boundsOfPoints, boxCorners, boxMatrix } from '../geometry/turnedBox.js';
import { STRIDE } from '../ink/points.js';
import { noteReach, textHeight, textReach } from '../text/markText.js';
import type { BoxMark, Mark, MarkOf, TurnedBox } from './mark.js';
import { arrowHeads, flattenPath, pathCourse } from './pathGeometry.js';
import { stampReach } from './stampGeometry.js';

/** Smallest upright rectangle that holds all that is drawn of a mark, in page units. */
export function markBounds(mark: Mark): Rect {
  switch (mark.kind) {
    case 'stroke':
      // A single point is drawn as a dot that reaches one unit on.
      return growRect(pointBounds(mark.points, STRIDE), mark.style.width + 1);
    case 'fill':
      return pointBounds(mark.rings.flat(), 2);
    case 'quote':
      return quoteRects(mark)
        .map((rect) => growRect(rect, quoteLineWidth(rect) / 2))
        .reduce(unionRect);
    case 'path':
      return growRect(boundsOfPoints(pathReach(mark)), mark.style.width);
    case 'shape':
      return growRect(boundsOfPoints(boxCorners(mark)), mark.style.line === null ? 0 : mark.style.width);
    case 'text':
      return turnedReach(mark, textReach(mark));
    case 'note':
      return turnedReach(mark, unionRect(mark, noteReach(mark)));
    case 'stamp':
      return turnedReach(mark, stampReach(mark));
    case 'picture':
    case 'patch':
      return boundsOfPoints(boxCorners(mark));
  }
}

/** Where something lies that is drawn in a mark's unturned box and turned with it. */
function turnedReach(mark: BoxMark, reach: Rect): Rect {
  const matrix = boxMatrix(markBox(mark));
  const corners = boxCorners({ ...reach, rotation: 0 });
  return boundsOfPoints(matrix ? corners.map((corner) => applyMatrix(matrix, ...corner)) : corners);
}

/** The turned box of a mark that has one; a text's height follows from its words. */
export function markBox(mark: BoxMark): TurnedBox {
  const { x, y, width, rotation } = mark;
  const height = mark.kind === 'text' ? textHeight(mark) : mark.height;
  return { x, y, width, height, rotation, flip: 'flip' in mark && mark.flip };
}

/** Width of the line under marked words, page units. */
export function quoteLineWidth({ height }: Pick<Rect, 'height'>): number {
  return Math.max(2, height * 0.09);
}

/** Where the lines of marked words lie. */
export function quoteRects({ rects }: Pick<MarkOf<'quote'>, 'rects'>): Rect[] {
  return Array.from({ length: rects.length / 4 }, (_, i) => ({
    x: rects[4 * i]!,
    y: rects[4 * i + 1]!,
    width: rects[4 * i + 2]!,
    height: rects[4 * i + 3]!,
  }));
}

/** Which kinds fill a turned box; every kind has to say so. */
const FILLS_BOX: { [Kind in Mark['kind']]: Kind extends BoxMark['kind'] ? true : false } = {
  stroke: false,
  path: false,
  fill: false,
  quote: false,
  text: true,
  shape: true,
  stamp: true,
  note: true,
  picture: true,
  patch: true,
};

export function hasBox(mark: Mark): mark is BoxMark {
  return FILLS_BOX[mark.kind];
}

function pathReach(mark: MarkOf<'path'>): [number, number][] {
  return [...flattenPath(pathCourse(mark)), ...arrowHeads(mark).flatMap((head) => flattenPath(head))];
}

function pointBounds(points: readonly number[], stride: number): Rect {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i + 1 < points.length; i += stride) {
    x0 = Math.min(x0, points[i]!);
    x1 = Math.max(x1, points[i]!);
    y0 = Math.min(y0, points[i + 1]!);
    y1 = Math.max(y1, points[i + 1]!);
  }
  return { x: x0, y: y0, width: x1 - x0, height: y1 - y0 };
}
