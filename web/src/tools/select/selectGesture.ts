import type { Mark } from '@doodla/core';
import { hitBySweep, liesWithin, withGroups } from '@doodla/core';
import type { GuidedMove } from '@doodla/core/construct';
import type { ToolDesk } from '../toolWork';
import { guideMarks, MoveGuides } from './moveGuides';
import type { Preview } from '../../canvas/preview';
import type { Gesture, PenPoint } from '../../desk/gesture';

/** Selects what one taps or goes round, and moves what is selected. */
export class SelectGesture implements Gesture {
  private last: PenPoint;
  /** Whether the pointer has not gone anywhere yet; a lasso ends where it began. */
  private isTap = true;
  private readonly path: number[] = [];
  private readonly moves: boolean;
  private guides: MoveGuides | undefined;

  constructor(
    private readonly desk: Pick<
      ToolDesk,
      'dropBeside' | 'maySelect' | 'newMark' | 'page' | 'penCase' | 'selection' | 'targetMarks'
    >,
    private readonly start: PenPoint,
    private readonly reach: number,
  ) {
    this.last = start;
    const hit = this.markAt(start);
    const { selection } = desk;
    if (hit && !selection.has(hit.id)) {
      const chosen = withGroups([hit], this.selectable());
      selection.select(
        chosen.map(({ id }) => id),
        start.steady,
      );
    }
    this.moves = hit !== undefined;
    if (this.moves && desk.penCase.get().guides) this.guides = new MoveGuides(desk, reach);
    if (!this.moves) this.path.push(start.x, start.y);
  }

  get preview(): Preview {
    if (!this.moves) return { area: this.path };
    if (this.isTap) return {};
    const move = this.guidedMove();
    const preview = this.desk.selection.preview({ kind: 'move', dx: move.dx, dy: move.dy });
    return {
      ...preview,
      marks: [...(preview.marks ?? []), ...guideMarks(this.desk, move.guides, this.reach)],
    };
  }

  move(points: readonly PenPoint[]): void {
    for (const point of points) {
      this.last = point;
      this.isTap &&= Math.hypot(point.x - this.start.x, point.y - this.start.y) < this.reach;
      if (!this.moves) this.path.push(point.x, point.y);
    }
  }

  end(): void {
    const { selection } = this.desk;
    if (this.moves) {
      if (!this.isTap && !this.desk.dropBeside(this.last)) selection.apply(this.transform());
      return;
    }
    const area = this.isTap ? [] : this.lasso();
    const inside = this.selectable().filter((mark) => area.length > 2 && liesWithin(mark, area));
    selection.select(
      withGroups(inside, this.selectable()).map(({ id }) => id),
      this.start.steady,
    );
  }

  cancel(): void {
    // Nothing was moved yet.
  }

  private transform() {
    const { dx, dy } = this.guidedMove();
    return { kind: 'move' as const, dx, dy };
  }

  /** How far it is moved; as the hand is while the key for it is held. */
  private guidedMove(): GuidedMove {
    const { start, last, guides } = this;
    const move = { dx: last.x - start.x, dy: last.y - start.y };
    return guides && !last.centred ? guides.guided(move) : { ...move, guides: [] };
  }

  /** The way gone round; while the key for it is held, the upright rectangle between its ends. */
  private lasso(): [number, number][] {
    const { start, last, path } = this;
    if (last.centred) {
      return [
        [start.x, start.y],
        [last.x, start.y],
        [last.x, last.y],
        [start.x, last.y],
      ];
    }
    const corners: [number, number][] = [];
    for (let i = 0; i < path.length; i += 2) corners.push([path[i]!, path[i + 1]!]);
    return corners;
  }

  private selectable(): Mark[] {
    return (this.desk.targetMarks?.all() ?? []).filter((mark) => this.desk.maySelect(mark));
  }

  private markAt({ x, y }: PenPoint): Mark | undefined {
    const area = { x: x - this.reach, y: y - this.reach, width: 2 * this.reach, height: 2 * this.reach };
    return this.desk.targetMarks
      ?.within(area)
      .findLast((mark) => this.desk.maySelect(mark) && hitBySweep(mark, x, y, x, y, this.reach));
  }
}
