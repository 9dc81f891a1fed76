import { growRect, hitBySweep, rectFromCorners } from '@doodla/core';
import type { Workspace } from '../workspace/workspace';
import type { Gesture, PenPoint } from './gesture';

/** Takes whole marks away that the tip touches; all of one sweep are one step to undo. */
export class EraseGesture implements Gesture {
  private readonly erased = new Set<string>();

  constructor(
    private readonly workspace: Workspace,
    private readonly radius: number,
    private last: PenPoint,
    private readonly onErased: (ids: ReadonlySet<string>) => void,
  ) {
    this.move([last]);
  }

  move(points: readonly PenPoint[]): void {
    const before = this.erased.size;
    for (const point of points) {
      this.sweep(this.last, point);
      this.last = point;
    }
    if (this.erased.size > before) this.onErased(new Set(this.erased));
  }

  end(): void {
    if (this.erased.size > 0) {
      this.workspace.target.perform([...this.erased].map((mark) => ({ do: 'remove', mark })));
    }
    this.onErased(new Set());
  }

  cancel(): void {
    this.onErased(new Set());
  }

  private sweep(from: PenPoint, to: PenPoint): void {
    const page = this.workspace.pageId.get();
    if (page === undefined) return;
    const area = growRect(rectFromCorners(from.x, from.y, to.x, to.y), this.radius);
    for (const mark of this.workspace.layers.at(-1)!.on(page).within(area)) {
      if (this.erased.has(mark.id) || !this.workspace.mayTouch(mark)) continue;
      if (hitBySweep(mark, from.x, from.y, to.x, to.y, this.radius)) this.erased.add(mark.id);
    }
  }
}
