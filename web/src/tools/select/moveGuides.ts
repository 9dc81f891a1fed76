import type { Mark, MarkOf, Rect, Transform } from '@doodla/core';
import { unionRect } from '@doodla/core';
import type { Grid, Guide, GuidedMove, GuidedResize } from '@doodla/core/construct';
import { gridOf, guidedMove, guidedResize, placeOf } from '@doodla/core/construct';
import type { ToolDesk } from '../toolWork';

/** The colour of lines that show by what something is aligned. */
const COLOUR = '#b07800';

/** So many things nearest to what is moved can be met. */
const MOST_NEAR = 200;
/** What ink and colour lie like is nothing to align by. */
const FREE = new Set<Mark['kind']>(['stroke', 'fill', 'quote']);

/** What a selection meets while it is moved or stretched: the places of other marks, and the page's ruling. */
export class MoveGuides {
  private readonly box: Rect | undefined;
  private readonly others: readonly Rect[];
  private readonly grid: Grid | undefined;

  constructor(
    desk: Pick<ToolDesk, 'page' | 'selection' | 'targetMarks'>,
    private readonly reach: number,
  ) {
    const moved = desk.selection.marks();
    const own = new Set(moved.map(({ id }) => id));
    const places = moved.filter(({ kind }) => !FREE.has(kind)).map(placeOf);
    this.box = places.length > 0 ? places.reduce(unionRect) : undefined;
    const others = (desk.targetMarks?.all() ?? []).filter(({ id, kind }) => !own.has(id) && !FREE.has(kind));
    this.others = this.nearest(others.map(placeOf));
    this.grid = desk.page && gridOf(desk.page);
  }

  guided(move: { dx: number; dy: number }): GuidedMove {
    return this.box
      ? guidedMove(this.box, this.others, move, this.reach, this.grid)
      : { ...move, guides: [] };
  }

  stretched(resize: Extract<Transform, { kind: 'resize' }>): GuidedResize {
    return this.box
      ? guidedResize(this.box, resize, this.others, this.reach, this.grid)
      : { resize, guides: [] };
  }

  private nearest(places: Rect[]): Rect[] {
    const { box } = this;
    if (!box || places.length <= MOST_NEAR) return places;
    const far = ({ x, y, width, height }: Rect) =>
      Math.hypot(x + width / 2 - box.x - box.width / 2, y + height / 2 - box.y - box.height / 2);
    return places.sort((a, b) => far(a) - far(b)).slice(0, MOST_NEAR);
  }
}

/** Guides as they are shown on the page; `reach` is what a hand may be off, page units. */
export function guideMarks(
  desk: Pick<ToolDesk, 'newMark'>,
  guides: readonly Guide[],
  reach: number,
): MarkOf<'path'>[] {
  return guides.map(({ axis, at, from, to }, i) => ({
    ...desk.newMark(`guide-${i}`)!,
    ...{ kind: 'path', course: 'straight', closed: false, heads: 'none', from: null, to: null },
    points: axis === 'x' ? [at, from, at, to] : [from, at, to, at],
    style: { line: COLOUR, width: Math.max(0.5, reach / 6), dash: 'dashed', fill: null, opacity: 1 },
  }));
}
