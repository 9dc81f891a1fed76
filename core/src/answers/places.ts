import { pointWithin } from './pointWithin.js';
import { insidePolygon } from '../geometry/polygon.js';
import type { Rect } from '../geometry/rect.js';
import { boxCentre, boxCorners } from '../geometry/turnedBox.js';
import { markBounds, markBox } from '../marks/bounds.js';
import type { Point } from '../marks/kind.js';
import type { Mark } from '../marks/mark.js';
import { hasBox, kindOf } from '../marks/mark.js';
import { textLayout } from '../marks/text/textLayout.js';

/** Between things that are put into a place, and between them and its edge; page units. */
const GAP = 6;

/** The middle of a mark's box, which stays in the middle however it is turned. Page units. */
export function middleOf(mark: Mark): Point {
  return boxCentre(hasBox(mark) ? markBox(mark) : markBounds(mark));
}

/** What is seen of a mark: of words on no ground of their own only these, not the room that they have. Page units. */
export function seenBounds(mark: Mark): Rect {
  if (mark.kind !== 'text' || mark.rotation !== 0 || mark.style.background !== null) return markBounds(mark);
  const { lines, height } = textLayout(mark);
  const runs = lines.flatMap((line) => line.runs);
  if (runs.length === 0) return markBounds(mark);
  const left = Math.min(...runs.map(({ x }) => x));
  const right = Math.max(...runs.map(({ x, width }) => x + width));
  return { x: mark.x + left, y: mark.y, width: right - left, height };
}

/** The middle of what is seen of a mark. Page units. */
export function centreOf(mark: Mark): Point {
  return mark.kind === 'text' ? boxCentre(seenBounds(mark)) : middleOf(mark);
}

/** What a mark takes in: its area, or the box of one that is only lines or words. Polygons, even-odd rule; page units. */
export function groundOf(mark: Mark): readonly (readonly Point[])[] {
  const area = kindOf(mark).area(mark);
  if (area.length > 0) return area;
  return [hasBox(mark) ? boxCorners(markBox(mark)) : boxCorners({ ...markBounds(mark), rotation: 0 })];
}

/** Whether a point lies in what a mark takes in. */
export function liesIn([x, y]: Point, mark: Mark): boolean {
  return groundOf(mark).filter((polygon) => insidePolygon(x, y, polygon)).length % 2 === 1;
}

/** Where one thing rests in a place: in its middle, or where that lies outside, as with a bent one, well within it. */
export function restIn(place: Mark): Point {
  const middle = boxCentre(markBounds(place));
  return liesIn(middle, place) ? middle : pointWithin(groundOf(place)[0]!);
}

/** The place that a point lies in: the smallest, where several lie over one another. */
export function placeAt(point: Point, places: readonly Mark[]): Mark | undefined {
  const size = (mark: Mark) => markBounds(mark).width * markBounds(mark).height;
  return places.filter((place) => liesIn(point, place)).sort((a, b) => size(a) - size(b))[0];
}

/**
 * Where the middle of a thing goes that is put into a place: to where one rests, if that is free, else to the first
 * free spot, row by row; where none is left, over the others.
 */
export function spotIn(place: Mark, thing: Mark, others: readonly Mark[]): Point {
  const ground = markBounds(place);
  const { width, height } = seenBounds(thing);
  const taken = others.map(seenBounds);
  const middle = restIn(place);
  const free = ([x, y]: Point) => taken.every((rect) => !overlaps(rect, { x, y, width, height }));
  if (free(middle)) return middle;
  const stepX = width + GAP;
  const stepY = height + GAP;
  for (let y = ground.y + GAP + height / 2; y + height / 2 <= ground.y + ground.height; y += stepY)
    for (let x = ground.x + GAP + width / 2; x + width / 2 <= ground.x + ground.width; x += stepX)
      if (liesIn([x, y], place) && free([x, y])) return [x, y];
  return middle;
}

/** Whether a rectangle meets another that is given by its middle. */
function overlaps(rect: Rect, { x, y, width, height }: Rect): boolean {
  return (
    Math.abs(rect.x + rect.width / 2 - x) < (rect.width + width) / 2 &&
    Math.abs(rect.y + rect.height / 2 - y) < (rect.height + height) / 2
  );
}
