import { insidePolygon } from '../geometry/polygon.js';
import type { Rect } from '../geometry/rect.js';
import { unionRect } from '../geometry/rect.js';
import { markBounds } from './bounds.js';
import { samplePoints } from './hit.js';
import type { Mark } from './mark.js';
import { kindOf } from './mark.js';

/** Part of a mark that has to lie within a lasso or band for it to be selected. */
const MAINLY = 0.6;

/** Whether a mark lies mainly within a polygon of x, y corners. */
export function liesWithin(mark: Mark, polygon: readonly (readonly [number, number])[]): boolean {
  const points = samplePoints(mark);
  const inside = points.filter(([x, y]) => insidePolygon(x, y, polygon)).length;
  return inside >= points.length * MAINLY;
}

/** The marks with all others of their groups. */
export function withGroups(chosen: readonly Mark[], all: readonly Mark[]): Mark[] {
  const groups = new Set(chosen.map((mark) => mark.group).filter((group) => group !== null));
  const ids = new Set(chosen.map((mark) => mark.id));
  return all.filter((mark) => ids.has(mark.id) || (mark.group !== null && groups.has(mark.group)));
}

/** Smallest rectangle round several marks; undefined for none. */
export function boundsOf(marks: readonly Mark[]): Rect | undefined {
  return marks
    .map(markBounds)
    .reduce<Rect | undefined>((all, one) => (all ? unionRect(all, one) : one), undefined);
}

export type AlignEdge = 'left' | 'centre' | 'right' | 'top' | 'middle' | 'bottom';

/** How far each mark has to move to line up with the others at an edge of their common bounds. */
export function alignMoves(marks: readonly Mark[], edge: AlignEdge): { dx: number; dy: number }[] {
  const all = boundsOf(marks);
  if (!all) return [];
  return marks.map((mark) => {
    const own = markBounds(mark);
    const [slackX, slackY] = [all.width - own.width, all.height - own.height];
    const offset = { left: 0, centre: slackX / 2, right: slackX, top: 0, middle: slackY / 2, bottom: slackY }[
      edge
    ];
    const sideways = edge === 'left' || edge === 'centre' || edge === 'right';
    return sideways ? { dx: all.x + offset - own.x, dy: 0 } : { dx: 0, dy: all.y + offset - own.y };
  });
}

/** How far each mark has to move so that the gaps between neighbours are all alike. */
export function distributeMoves(marks: readonly Mark[], along: 'x' | 'y'): { dx: number; dy: number }[] {
  const side = along === 'x' ? 'width' : 'height';
  const bounds = marks
    .map((mark, i) => ({ i, rect: markBounds(mark) }))
    .sort((a, b) => a.rect[along] - b.rect[along]);
  const first = bounds[0];
  const last = bounds.at(-1);
  if (!first || !last || marks.length < 3) return marks.map(() => ({ dx: 0, dy: 0 }));
  const filled = bounds.reduce((sum, { rect }) => sum + rect[side], 0);
  const gap = (last.rect[along] + last.rect[side] - first.rect[along] - filled) / (marks.length - 1);
  const moves: { dx: number; dy: number }[] = [];
  let at = first.rect[along];
  for (const { i, rect } of bounds) {
    const by = at - rect[along];
    moves[i] = along === 'x' ? { dx: by, dy: 0 } : { dx: 0, dy: by };
    at += rect[side] + gap;
  }
  return moves;
}

/** Whether a mark goes along when pages are handed out, grabbed or pictured; patches only hide. */
export function isExported(mark: Mark): boolean {
  return kindOf(mark).exported;
}
