import type { InkStyle } from '@doodla/core';
import { StrokeBuilder } from '@doodla/core';
import { nanoid } from 'nanoid';
import type { Desk } from '../../desk/desk';
import type { Preview } from '../../canvas/preview';
import type { Gesture, PenPoint } from '../../desk/gesture';

/** Draws ink that fades by itself, here and for the class, and becomes no mark. */
export class WispGesture implements Gesture {
  private readonly id = nanoid();
  private readonly builder: StrokeBuilder;
  private readonly broadcast: ((points: number[], last?: boolean) => void) | undefined;
  private readonly style: InkStyle;
  private readonly page: string | undefined;
  private readonly fade: number;

  constructor(
    private readonly desk: Pick<Desk, 'ink' | 'pageId' | 'penCase' | 'space'>,
    start: PenPoint,
  ) {
    const { pen, steadying, wispSeconds } = desk.penCase.get();
    this.builder = new StrokeBuilder(steadying);
    this.style = { ...pen, nature: 'marker', width: Math.max(pen.width, 6), opacity: 0.9 };
    this.page = desk.pageId.get();
    this.fade = Math.round(wispSeconds * 1000);
    if (this.page !== undefined)
      this.broadcast = desk.ink.broadcast(this.id, this.page, {
        space: desk.space,
        style: this.style,
        pressure: false,
        fade: this.fade,
      });
    this.move([start]);
  }

  get preview(): Preview {
    return { ink: { points: this.builder.points, style: this.style } };
  }

  move(points: readonly PenPoint[]): void {
    for (const point of points) this.builder.add({ ...point, pressure: undefined });
    this.broadcast?.(this.builder.points);
  }

  end(): void {
    const points = this.builder.finish();
    this.broadcast?.(this.builder.points, true);
    if (this.page === undefined) return;
    const { id, page, style, fade } = this;
    const { space } = this.desk;
    this.desk.ink.leave({ id, page, author: '', space, style, pressure: false, points, fade });
  }

  cancel(): void {
    // What others have seen of it fades by itself.
  }
}
