import { boxCorners, boxMatrix } from '../geometry/turnedBox.js';
import { insidePolygon, polygonArea } from '../geometry/polygon.js';
import type { FillMark, Mark } from '../marks/mark.js';
import { flattenPath, pathCourse, pointsOf } from '../marks/pathGeometry.js';
import { shapePath } from '../marks/shapeGeometry.js';
import type { Change } from '../ops/operation.js';
import { orderAt } from '../ops/order.js';
import { mapPath } from '../paint/path.js';

type Point = readonly [number, number];

/** Areas that differ by less are the same: half a line's width lies on each side of where it is drawn. */
const SAME_AREA = 0.15;

/**
 * What pouring colour into an area at a point does to a page. A shape that is poured full gets that filling, so
 * that it keeps it wherever it goes; colour that was poured there before gives way; the rest lies over filled
 * things and pictures, and under all else. `marks` are those of the page, lowest first.
 */
export function pourChanges(
  poured: Omit<FillMark, 'order'>,
  [x, y]: Point,
  marks: readonly Mark[],
  mayTouch: (mark: Mark) => boolean,
): Change[] {
  const area = ringsArea(poured.rings);
  const here = marks.filter((mark) => covers(mark, x, y));
  const shape = here.findLast((mark) => mark.kind === 'shape' || mark.kind === 'path');
  if (shape && mayTouch(shape) && isSame(area, polygonAreaOf(outlineOf(shape))))
    return [
      ...fillsIn(here, mayTouch).map(({ id }): Change => ({ do: 'remove', mark: id })),
      { do: 'patch', mark: shape.id, set: { style: { fill: poured.style.colour } } },
    ];
  const replaced = fillsIn(here, mayTouch).map((old): Change => {
    const isWhole = area > ringsArea(old.rings) * (1 - SAME_AREA);
    if (isWhole) return { do: 'remove', mark: old.id };
    // By the even-odd rule, a part that is named twice is left out.
    return { do: 'patch', mark: old.id, set: { rings: [...old.rings, ...poured.rings] } };
  });
  const above = marks.findLastIndex((mark) => here.includes(mark) && hides(mark)) + 1;
  return [...replaced, { do: 'add', mark: { ...poured, order: orderAt(marks, above) } }];
}

function isSame(a: number, b: number): boolean {
  return Math.abs(a - b) < SAME_AREA * b;
}

const fillsIn = (marks: readonly Mark[], mayTouch: (mark: Mark) => boolean): FillMark[] =>
  marks.filter((mark): mark is FillMark => mark.kind === 'fill' && mayTouch(mark));

/** Whether a mark takes in a point. */
function covers(mark: Mark, x: number, y: number): boolean {
  if (mark.kind === 'fill')
    return mark.rings.filter((ring) => insidePolygon(x, y, pointsOf(ring))).length % 2 === 1;
  return insidePolygon(x, y, outlineOf(mark));
}

/** Whether nothing shows through a mark where it takes in a point. */
function hides(mark: Mark): boolean {
  if (mark.kind === 'shape' || (mark.kind === 'path' && mark.closed)) return mark.style.fill !== null;
  return mark.kind === 'picture' || mark.kind === 'patch' || mark.kind === 'note';
}

/** The corners of what a mark takes in; none where it is only lines. */
function outlineOf(mark: Mark): readonly Point[] {
  switch (mark.kind) {
    case 'shape': {
      if (mark.form === 'bracket') return [];
      const [path, matrix] = [shapePath(mark), boxMatrix(mark)];
      return flattenPath(matrix ? mapPath(path, matrix) : path);
    }
    case 'path':
      return mark.closed ? flattenPath(pathCourse(mark)) : [];
    case 'picture':
    case 'patch':
    case 'note':
      return boxCorners(mark);
    default:
      return [];
  }
}

const polygonAreaOf = (corners: readonly Point[]) => Math.abs(polygonArea(corners));

/** Area of rings by the even-odd rule, where each lies within or beside the others. */
function ringsArea(rings: FillMark['rings']): number {
  const polygons = rings.map(pointsOf);
  return polygons.reduce((sum, polygon, i) => {
    const [x, y] = polygon[0]!;
    const depth = polygons.filter((other, k) => k !== i && insidePolygon(x, y, other)).length;
    return sum + (depth % 2 === 0 ? 1 : -1) * polygonAreaOf(polygon);
  }, 0);
}
