import { pointsOf } from '../geometry/path.js';
import { insidePolygon, polygonArea } from '../geometry/polygon.js';
import type { FillMark } from '../marks/fill/fillMark.js';
import type { Point } from '../marks/kind.js';
import type { Mark } from '../marks/mark.js';
import { kindOf } from '../marks/mark.js';
import type { Change } from '../ops/operation.js';
import { orderAt } from '../ops/order.js';

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
  if (shape && mayTouch(shape) && isSame(area, polygonAreaOf(kindOf(shape).area(shape)[0] ?? [])))
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
  const polygons = kindOf(mark).area(mark);
  return polygons.filter((polygon) => insidePolygon(x, y, polygon)).length % 2 === 1;
}

/** Whether nothing shows through a mark where it takes in a point. */
const hides = (mark: Mark) => kindOf(mark).hides(mark);

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
