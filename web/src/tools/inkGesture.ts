import type { InkStyle } from '@doodla/core';
import { MAX_POINTS, packPoint, pointCount, simplify } from '@doodla/core';
import { nanoid } from 'nanoid';
import type { WetInk } from '../page/pageCanvas';
import type { Workspace } from '../workspace/workspace';
import type { Gesture, PenPoint } from './gesture';

/** Points closer than this to the last one add nothing; page units. */
const MIN_STEP = 0.4;
/** How far a left-out point may lie from the stroke that is kept; page units. */
const TOLERANCE = 0.25;

/** Draws a stroke with the pen or highlighter. */
export class InkGesture implements Gesture {
  private readonly id = nanoid();
  private readonly points: number[] = [];
  private readonly broadcast: ((points: number[]) => void) | undefined;

  constructor(
    private readonly workspace: Workspace,
    private readonly style: InkStyle,
    private readonly pressure: boolean,
    start: PenPoint,
  ) {
    const page = workspace.pageId.get();
    if (page !== undefined) this.broadcast = workspace.ink?.broadcast(this.id, page, workspace.space, style, pressure);
    this.move([start]);
  }

  get wet(): WetInk {
    return { points: this.points, style: this.style, pressure: this.pressure };
  }

  move(points: readonly PenPoint[]): void {
    for (const { x, y, pressure, time } of points) {
      const [lastX, lastY] = [this.points.at(-4), this.points.at(-3)];
      if (lastX !== undefined && Math.hypot(x - lastX, y - lastY!) < MIN_STEP) continue;
      if (pointCount(this.points) < MAX_POINTS) this.points.push(...packPoint(x, y, pressure, time));
    }
    this.broadcast?.(this.points);
  }

  end(): void {
    const common = this.workspace.newMark(this.id);
    if (!common) return;
    const points = simplify(this.points, TOLERANCE);
    const { style, pressure } = this;
    this.workspace.target.perform([{ do: 'add', mark: { ...common, kind: 'stroke', style, points, pressure } }]);
  }

  cancel(): void {
    // Nothing was put on the page yet.
  }
}
