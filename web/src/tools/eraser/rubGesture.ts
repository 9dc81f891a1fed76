import type { Change, MarkOf } from '@doodla/core';
import { growRect, rectFromCorners, rubOut } from '@doodla/core';
import { nanoid } from 'nanoid';
import type { Desk } from '../../desk/desk';
import type { Preview } from '../../canvas/preview';
import type { Gesture, PenPoint } from '../../desk/gesture';

/** Rubs out only the ink that the tip touches; what is left of a stroke becomes strokes of their own. */
export class RubGesture implements Gesture {
  /** What is left of each stroke that was touched, by the stroke's id. */
  private readonly left = new Map<string, { stroke: MarkOf<'stroke'>; pieces: number[][] }>();

  constructor(
    private readonly desk: Pick<Desk, 'mayTouch' | 'target' | 'targetMarks'>,
    private readonly radius: number,
    private last: PenPoint,
  ) {
    this.move([last]);
  }

  get preview(): Preview {
    const marks = [...this.left.values()].flatMap(({ stroke, pieces }) =>
      pieces.map((points) => ({ ...stroke, points })),
    );
    return { hidden: new Set(this.left.keys()), marks };
  }

  move(points: readonly PenPoint[]): void {
    for (const point of points) {
      this.sweep(this.last, point);
      this.last = point;
    }
  }

  end(): void {
    const changes = [...this.left.values()].flatMap(({ stroke, pieces }): Change[] => [
      { do: 'remove', mark: stroke.id },
      ...pieces.map((points): Change => ({ do: 'add', mark: { ...stroke, id: nanoid(), points } })),
    ]);
    if (changes.length > 0) this.desk.target.perform(changes);
  }

  cancel(): void {
    this.left.clear();
  }

  private sweep(from: PenPoint, to: PenPoint): void {
    const area = growRect(rectFromCorners(from.x, from.y, to.x, to.y), this.radius);
    for (const mark of this.desk.targetMarks?.within(area) ?? []) {
      if (mark.kind !== 'stroke' || !this.desk.mayTouch(mark)) continue;
      const before = this.left.get(mark.id)?.pieces ?? [mark.points as number[]];
      const tip = { ax: from.x, ay: from.y, bx: to.x, by: to.y, radius: this.radius + mark.style.width / 2 };
      const after = before.map((points) => rubOut(points, tip));
      if (after.every((pieces) => pieces === undefined)) continue;
      this.left.set(mark.id, { stroke: mark, pieces: after.flatMap((pieces, i) => pieces ?? [before[i]!]) });
    }
  }
}
