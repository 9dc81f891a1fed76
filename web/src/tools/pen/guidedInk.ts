import type { InkStyle, MarkOf, Point } from '@doodla/core';
import { STRIDE } from '@doodla/core';
import type { InkGuide, Instrument } from '@doodla/core/instruments';
import { CircleGuide, inkGuideAt, onPage } from '@doodla/core/instruments';
import { nanoid } from 'nanoid';
import type { Preview } from '../../canvas/preview';
import type { Desk, MarkCommon } from '../../desk/desk';
import type { Gesture, PenPoint } from '../../desk/gesture';
import type { InstrumentDesk } from '../../desk/instruments';
import { evenInk, instrumentsOn, layInstrument } from '../../desk/instruments';
import { pageGauge } from '../../desk/measures';
import { TOUCH_REACH } from '../toolWork';

export type GuidedDesk = InstrumentDesk & Pick<Desk, 'ink' | 'newMark' | 'penCase' | 'shapeOffer' | 'target'>;

/** A pointer so near to the pencil of compasses holds it, page units. */
const ON_PENCIL = 0.5;
/** Ink shorter than this was a slip of the hand, page units. */
const LEAST_LENGTH = 2;

/** Ink that runs along what lies on the page where it begins; undefined where nothing does. */
export function guidedInk(
  desk: GuidedDesk,
  style: InkStyle,
  at: PenPoint,
  scale: number,
): GuidedInk | undefined {
  const lying = instrumentsOn(desk);
  const pencil = lying.find(({ instrument, isMine }) => isMine && isPencil(instrument, at))?.instrument;
  if (pencil?.kind === 'compasses') {
    const guide = new CircleGuide(pencil);
    return new GuidedInk(desk, style, guide, at, (moving) => layInstrument(desk, guide.now, moving));
  }
  const instruments = lying.map(({ instrument }) => instrument);
  const guide = inkGuideAt(instruments, [at.x, at.y], TOUCH_REACH / scale, pageGauge(desk));
  return guide && new GuidedInk(desk, style, guide, at);
}

function isPencil(instrument: Instrument, { x, y }: PenPoint): boolean {
  if (instrument.kind !== 'compasses') return false;
  const [px, py] = onPage(instrument, [instrument.radius, 0]);
  return Math.hypot(px - x, py - y) <= ON_PENCIL;
}

/** Draws along an instrument: exactly, however the hand shakes. */
export class GuidedInk implements Gesture {
  private readonly id = nanoid();
  private readonly common: MarkCommon | undefined;
  private readonly broadcast: ((points: number[]) => void) | undefined;
  /** What others see meanwhile: it only grows. */
  private readonly trail: number[] = [];
  private time = 0;

  /** `onFollow` is told whenever the hand has moved, and at the end that it has stopped. */
  constructor(
    private readonly desk: GuidedDesk,
    private readonly style: InkStyle,
    private readonly guide: InkGuide,
    start: PenPoint,
    private readonly onFollow?: (moving: boolean) => void,
  ) {
    desk.shapeOffer.set(undefined);
    this.common = desk.newMark(this.id);
    if (this.common) {
      const { page, space, pane } = this.common;
      const head = { space, style, pressure: false, ...(pane !== undefined && { pane }) };
      this.broadcast = desk.ink.broadcast(this.id, page, head);
    }
    this.move([start]);
  }

  get preview(): Preview {
    const pane = this.common?.pane;
    return { ink: { points: this.points(), style: this.style, ...(pane !== undefined && { pane }) } };
  }

  move(points: readonly PenPoint[]): void {
    for (const { x, y, time } of points) {
      this.time = time;
      this.grow(this.guide.follow([x, y]));
    }
    this.broadcast?.(this.trail);
    this.onFollow?.(true);
  }

  end(): void {
    this.onFollow?.(false);
    const points = this.points();
    if (!this.common || lengthOf(points) < LEAST_LENGTH) return;
    const mark: MarkOf<'stroke'> = {
      ...this.common,
      kind: 'stroke',
      style: this.style,
      points,
      pressure: false,
    };
    this.desk.target.perform([{ do: 'add', mark }]);
  }

  cancel(): void {
    this.onFollow?.(false);
  }

  private points(): number[] {
    return evenInk(this.guide.drawn(), this.time);
  }

  private grow(at: Point): void {
    const [x, y] = this.trail.slice(-STRIDE);
    if (x !== undefined && Math.hypot(at[0] - x, at[1] - y!) < 1) return;
    this.trail.push(...evenInk([at], 0).slice(0, STRIDE - 1), Math.round(this.time));
  }
}

function lengthOf(points: readonly number[]): number {
  let length = 0;
  for (let i = STRIDE; i < points.length; i += STRIDE)
    length += Math.hypot(points[i]! - points[i - STRIDE]!, points[i + 1]! - points[i + 1 - STRIDE]!);
  return length;
}
