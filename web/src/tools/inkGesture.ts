import type { InkStyle } from '@doodla/core';
import { StrokeBuilder } from '@doodla/core';
import { nanoid } from 'nanoid';
import type { WetInk } from '../page/pageCanvas';
import type { Workspace } from '../workspace/workspace';
import type { Gesture, PenPoint } from './gesture';

/** How much a shaking hand is steadied, 0 to 1. */
const STEADYING = 0.35;

/** Draws a stroke with the pen or highlighter. */
export class InkGesture implements Gesture {
  private readonly id = nanoid();
  private readonly builder = new StrokeBuilder(STEADYING);
  private readonly broadcast: ((points: number[]) => void) | undefined;

  constructor(
    private readonly workspace: Workspace,
    private readonly style: InkStyle,
    private readonly pressure: boolean,
    start: PenPoint,
  ) {
    const page = workspace.pageId.get();
    if (page !== undefined)
      this.broadcast = workspace.ink?.broadcast(this.id, page, workspace.space, style, pressure);
    this.move([start]);
  }

  get wet(): WetInk {
    return { points: this.builder.points, style: this.style };
  }

  move(points: readonly PenPoint[]): void {
    for (const point of points) {
      this.builder.add({ ...point, pressure: this.pressure ? point.pressure : undefined });
    }
    this.broadcast?.(this.builder.points);
  }

  end(): void {
    const common = this.workspace.newMark(this.id);
    if (!common) return;
    const { style, pressure } = this;
    const points = this.builder.finish();
    this.workspace.target.perform([
      { do: 'add', mark: { ...common, kind: 'stroke', style, points, pressure } },
    ]);
  }

  cancel(): void {
    // Nothing was put on the page yet.
  }
}
