import type { InkStyle, MarkOf } from '@doodla/core';
import { packPoint, pressureWithTilt, StrokeBuilder, snapAngle } from '@doodla/core';
import { nanoid } from 'nanoid';
import type { MarkCommon, Desk } from '../../desk/desk';
import type { NeatDesk } from '../../desk/neaten';
import { afterRest } from '../../ui/afterRest';
import type { Preview } from '../../canvas/preview';
import type { Gesture, PenPoint } from '../../desk/gesture';
import type { RestedInk } from './restedInk';

type InkDesk = NeatDesk & Pick<Desk, 'ink' | 'penCase' | 'shapeWatch'>;

/** Resting so long at the end of a stroke makes it neat. */
const REST_MS = 650;
/** A hand that moves less than this is resting; page units. */
const REST_RADIUS = 3;
/** Too short to be meant as a line; page units. */
const LEAST_LENGTH = 24;

/**
 * Draws a stroke; straight while the key for it is held, or with a straight highlighter. After a rest at its end it is the shape
 * that it means, where it means one.
 */
export class InkGesture implements Gesture {
  private readonly id = nanoid();
  private readonly builder: StrokeBuilder;
  /** The page, author and space in which the stroke began, and stays. */
  private readonly common: MarkCommon | undefined;
  private readonly broadcast: ((points: number[]) => void) | undefined;
  private straight: boolean;
  private last: PenPoint;
  private restedAt: PenPoint;
  private endWait: (() => void) | undefined;
  private rested: RestedInk | undefined;

  constructor(
    private readonly desk: InkDesk,
    private readonly style: InkStyle,
    private readonly pressure: boolean,
    private readonly start: PenPoint,
    private readonly onChange: () => void,
  ) {
    const { steadying, straightHighlighter } = desk.penCase.get();
    this.builder = new StrokeBuilder(steadying);
    this.straight = style.nature === 'highlighter' && straightHighlighter;
    this.last = this.restedAt = start;
    this.common = desk.newMark(this.id);
    desk.shapeOffer.set(undefined);
    desk.shapeWatch.hold();
    if (this.common) {
      const { page, space, pane } = this.common;
      const head = { space, style, pressure, ...(pane !== undefined && { pane }) };
      this.broadcast = desk.ink.broadcast(this.id, page, head);
    }
    this.move([start]);
  }

  get preview(): Preview {
    if (this.rested) return { marks: [this.rested.mark] };
    const points = this.isStraight ? this.line() : this.builder.points;
    const pane = this.common?.pane;
    return { ink: { points, style: this.style, ...(pane !== undefined && { pane }) } };
  }

  move(points: readonly PenPoint[]): void {
    for (const point of points) {
      this.last = point;
      const pressure = pressureWithTilt(this.style.nature, point.pressure, point.tilt ?? 0);
      this.builder.add({ ...point, pressure: this.pressure ? pressure : undefined });
    }
    this.watchRest();
    if (!this.isStraight) this.broadcast?.(this.builder.points);
  }

  end(): void {
    this.endWait?.();
    const { common, style, pressure } = this;
    if (!common) return;
    const points = this.isStraight ? this.line() : this.builder.finish();
    const mark: MarkOf<'stroke'> = { ...common, kind: 'stroke', style, points, pressure };
    const isThere = this.desk.target.perform([{ do: 'add', mark }]) !== undefined;
    if (isThere && this.rested) this.rested.take();
    else if (isThere && this.isWatched) this.desk.shapeWatch.drawn(this.id);
  }

  /** Whether the drawing is to become neat by itself. */
  private get isWatched(): boolean {
    const { penCase } = this.desk;
    return this.style.nature !== 'highlighter' && !this.isStraight && penCase.get().neat;
  }

  cancel(): void {
    this.endWait?.();
  }

  private get isStraight(): boolean {
    return this.straight || this.last.steady;
  }

  private watchRest(): void {
    const { restedAt, last, start } = this;
    if (last.byKeys) return;
    if (this.endWait && Math.hypot(last.x - restedAt.x, last.y - restedAt.y) < REST_RADIUS) return;
    this.endWait?.();
    this.restedAt = last;
    const isShort = Math.hypot(last.x - start.x, last.y - start.y) < LEAST_LENGTH;
    this.endWait = afterRest(REST_MS, () => {
      const isDot = isShort && this.style.nature === 'highlighter';
      if (!isDot) void this.neaten(last);
    });
  }

  /** The hand rests: what was drawn so far becomes what it means. */
  private async neaten(at: PenPoint): Promise<void> {
    const { common, style, pressure, builder } = this;
    const points = [...builder.points];
    const rested =
      style.nature === 'highlighter' || !common
        ? 'straight'
        : await import('./restedInk')
            .then((rest) => rest.restedInk(this.desk, { ...common, kind: 'stroke', style, points, pressure }))
            .catch(() => 'straight' as const); // Without a connection it cannot be fetched: a line it can be all the same.
    if (this.restedAt !== at || rested === undefined) return;
    if (rested === 'straight') this.straight = true;
    else this.rested = rested;
    this.onChange();
  }

  private line(): number[] {
    const { start, last } = this;
    const end = last.steady
      ? snapAngle(start, last)
      : this.style.nature === 'highlighter'
        ? level(start, last)
        : last;
    const pressure = this.builder.points[2]!;
    return [...packPoint(start.x, start.y, pressure, 0), ...packPoint(end.x, end.y, pressure, last.time)];
  }
}

/** A highlighter's line that is nearly level is made level. */
function level(start: PenPoint, end: PenPoint): { x: number; y: number } {
  const nearly = Math.abs(end.y - start.y) < Math.abs(end.x - start.x) * 0.2;
  return nearly ? { x: end.x, y: start.y } : end;
}
