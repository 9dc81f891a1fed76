import { hasExactly } from '../checks/fields.js';
import type { Rect } from '../geometry/rect.js';
import { markBounds } from '../marks/bounds.js';
import { isNumberIn, isPaneId } from '../marks/fields.js';
import type { Mark } from '../marks/mark.js';

/** Where content lies on the glass: glass = scale · content + (x, y). */
export interface Placement {
  x: number;
  y: number;
  scale: number;
}

/** A part of a shown screen whose content is scrolled or enlarged by itself; `region` is where it is on the glass. */
export interface Pane {
  /** Counts from 1 within a view. */
  id: number;
  region: Rect;
  place: Placement;
}

/** Most panes of one view. */
export const MAX_PANES = 6;
/** The number that stands for what stays where it is on the glass: headers, task bars, the frame of a window. */
export const GLASS = 0;
export const IN_PLACE: Placement = { x: 0, y: 0, scale: 1 };
const MAX_PLACE = 1e6;

/** Where the content of the largest pane lies, in whose units a view's page is measured. */
export function mainPlace(panes: readonly Pane[]): Placement {
  return mainPane(panes)?.place ?? IN_PLACE;
}

/** The largest pane; the first of those that are equal. */
export function mainPane(panes: readonly Pane[]): Pane | undefined {
  return panes.reduce<Pane | undefined>(
    (most, pane) => (most && areaOf(most.region) >= areaOf(pane.region) ? most : pane),
    undefined,
  );
}

/** The number of the pane at a point of the glass; the smallest, where they lie on each other. */
export function paneAt(panes: readonly Pane[], x: number, y: number): number {
  const there = panes.filter(
    ({ region }) =>
      x >= region.x && y >= region.y && x < region.x + region.width && y < region.y + region.height,
  );
  there.sort((a, b) => areaOf(a.region) - areaOf(b.region));
  return there[0]?.id ?? GLASS;
}

/** Where the content of a pane lies; in place for what stays on the glass. */
export function placeOf(panes: readonly Pane[], id: number): Placement {
  return panes.find((pane) => pane.id === id)?.place ?? IN_PLACE;
}

/**
 * The pane that a mark was made on. One that was made before anything had moved does not say so: then it lies on the
 * glass where it was made.
 */
export function paneOf(mark: Mark, panes: readonly Pane[]): number {
  if (mark.pane !== undefined) return mark.pane;
  if (panes.length === 0) return GLASS;
  const { x, y, width, height } = markBounds(mark);
  return paneAt(panes, x + width / 2, y + height / 2);
}

/** How content of a pane lies among that of the main one: main = scale · own + (x, y). */
export function amongMain(panes: readonly Pane[], id: number): Placement {
  const [main, own] = [mainPlace(panes), placeOf(panes, id)];
  return {
    scale: own.scale / main.scale,
    x: (own.x - main.x) / main.scale,
    y: (own.y - main.y) / main.scale,
  };
}

/** The same panes in other units, so many to one of these. */
export function scaledPanes(panes: readonly Pane[], k: number): Pane[] {
  return panes.map(({ id, region, place }) => ({
    id,
    region: { x: region.x * k, y: region.y * k, width: region.width * k, height: region.height * k },
    place: { ...place, x: place.x * k, y: place.y * k },
  }));
}

export function samePanes(a: readonly Pane[], b: readonly Pane[]): boolean {
  return JSON.stringify(a) === JSON.stringify(b);
}

/** Whether a value from outside is a list of panes. */
export function arePanes(value: unknown): value is Pane[] {
  const isPlace = (part: unknown) => isNumberIn(part, -MAX_PLACE, MAX_PLACE);
  const isScale = (part: unknown) => isNumberIn(part, 0.001, 1000);
  return (
    Array.isArray(value) &&
    value.length <= MAX_PANES &&
    value.every((pane) =>
      hasExactly(pane, {
        id: isPaneId,
        region: (region) => hasExactly(region, { x: isPlace, y: isPlace, width: isPlace, height: isPlace }),
        place: (place) => hasExactly(place, { x: isPlace, y: isPlace, scale: isScale }),
      }),
    )
  );
}

const areaOf = ({ width, height }: Rect) => width * height;
