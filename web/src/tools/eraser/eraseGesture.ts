import { growRect, hitBySweep, rectFromCorners } from '@doodla/core';
import type { Desk } from '../../desk/desk';
import type { Preview } from '../../canvas/preview';
import type { Gesture, PenPoint } from '../../desk/gesture';

/** Takes whole marks away that the tip touches; all of one sweep are one step to undo. */
export class EraseGesture implements Gesture {
  private readonly erased = new Set<string>();

  constructor(
    private readonly desk: Pick<Desk, 'mayTouch' | 'target' | 'targetMarks'>,
    private readonly radius: number,
    private last: PenPoint,
  ) {
    this.move([last]);
  }

  get preview(): Preview {
    return { hidden: this.erased };
  }

  move(points: readonly PenPoint[]): void {
    for (const point of points) {
      this.sweep(this.last, point);
      this.last = point;
    }
  }

  end(): void {
    if (this.erased.size === 0) return;
    this.desk.target.perform([...this.erased].map((mark) => ({ do: 'remove', mark })));
  }

  cancel(): void {
    this.erased.clear();
  }

  private sweep(from: PenPoint, to: PenPoint): void {
    const area = growRect(rectFromCorners(from.x, from.y, to.x, to.y), this.radius);
    for (const mark of this.desk.targetMarks?.within(area) ?? []) {
      if (this.erased.has(mark.id) || !this.desk.mayTouch(mark)) continue;
      if (hitBySweep(mark, from.x, from.y, to.x, to.y, this.radius)) this.erased.add(mark.id);
    }
  }
}
