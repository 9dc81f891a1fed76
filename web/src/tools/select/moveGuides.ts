import type { Mark, Rect } from '@doodla/core';
import { unionRect } from '@doodla/core';
import type { Grid, GuidedMove } from '@doodla/core/construct';
import { gridOf, guidedMove, placeOf } from '@doodla/core/construct';
import type { ToolDesk } from '../toolWork';

/** So many things nearest to what is moved can be met. */
const MOST_NEAR = 200;
/** What ink and colour lie like is nothing to align by. */
const FREE = new Set<Mark['kind']>(['stroke', 'fill', 'quote']);

/** What a selection meets while it is moved: the places of other marks, and the page's ruling. */
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

  private nearest(places: Rect[]): Rect[] {
    const { box } = this;
    if (!box || places.length <= MOST_NEAR) return places;
    const far = ({ x, y, width, height }: Rect) =>
      Math.hypot(x + width / 2 - box.x - box.width / 2, y + height / 2 - box.y - box.height / 2);
    return places.sort((a, b) => far(a) - far(b)).slice(0, MOST_NEAR);
  }
}
