import type { Anchor, MarkOf } from '@doodla/core';
import { anchorAt, anchorPoint, snapAngle } from '@doodla/core';
import type { SnapField } from '@doodla/core/construct';
import { snapField } from '../../desk/construct';
import type { MarkCommon, Desk } from '../../desk/desk';
import { LINE_TYPES } from './facts';
import type { Preview } from '../../canvas/preview';
import type { Gesture, PenPoint } from '../../desk/gesture';

/** A line shorter than this was a slip of the hand; page units. */
const LEAST_LENGTH = 6;

/** The colour of the rings at ends that stick. */
const STICKS = '#b07800';

/** An end of a line, and what it sticks to. */
interface Hold {
  anchor: Anchor | null;
  snapped?: true;
  x: number;
  y: number;
}

/** Draws a line, arrow, connector or curve from where one presses to where one lets go. */
export class LineGesture implements Gesture {
  private last: PenPoint;
  private readonly common: MarkCommon | undefined;
  private readonly mark: MarkOf<'path'> | undefined;

  /** Where the line begins: where it was pressed, or on what it sticks to there. */
  private readonly from: Hold;
  /** Points and directions to draw to; undefined where that is off. */
  private readonly field: SnapField | undefined;

  constructor(
    private readonly desk: Pick<Desk, 'layers' | 'newMark' | 'pageId' | 'penCase' | 'target' | 'targetMarks'>,
    private readonly start: PenPoint,
    /** How near an end has to be to something to stick to it, page units. */
    private readonly reach: number,
  ) {
    this.last = start;
    const { line, outline, snaps } = desk.penCase.get();
    this.field = snaps && LINE_TYPES[line].course === 'straight' ? snapField(desk, start) : undefined;
    this.from = this.holdAt(start);
    const { course, heads, closed } = LINE_TYPES[line];
    this.common = desk.newMark();
    this.mark = this.common && {
      ...this.common,
      kind: 'path',
      course,
      heads,
      closed,
      points: [],
      from: this.from.anchor,
      to: null,
      style: { ...outline, line: outline.line ?? outline.fill, fill: null },
    };
  }

  get preview(): Preview {
    if (!this.mark || !this.isLongEnough) return {};
    const line = { ...this.mark, points: this.points() };
    const rings = [this.from, this.holdAt(this.last, this.from)]
      .filter(({ anchor, snapped }) => anchor !== null || snapped)
      .map((hold) => this.ring(hold));
    return { marks: [line, ...rings] };
  }

  move(points: readonly PenPoint[]): void {
    this.last = points.at(-1) ?? this.last;
  }

  end(): void {
    if (!this.mark || !this.isLongEnough) return;
    const mark = { ...this.mark, points: this.points(), to: this.holdAt(this.last, this.from).anchor };
    this.desk.target.perform([{ do: 'add', mark }]);
  }

  cancel(): void {
    // Nothing was put on the page yet.
  }

  private get isLongEnough(): boolean {
    return Math.hypot(this.last.x - this.start.x, this.last.y - this.start.y) >= LEAST_LENGTH;
  }

  /**
   * Ends are drawn to points and directions that are there, and stick to what lies under them, or a little beside; then they are
   * drawn at it.
   */
  private holdAt(place: { x: number; y: number }, start?: Hold): Hold {
    const snap = this.field?.snap([place.x, place.y], this.reach, start && [start.x, start.y]);
    const { x, y } = snap ? { x: snap.at[0], y: snap.at[1] } : place;
    const hold = this.stickAt({ x, y });
    return snap ? { ...hold, x, y, snapped: true } : hold;
  }

  private stickAt({ x, y }: { x: number; y: number }): Hold {
    const { reach } = this;
    const marks = this.desk.targetMarks;
    const under = marks?.within({ x, y, width: 0, height: 0 }).at(-1);
    const near =
      under ?? marks?.within({ x: x - reach, y: y - reach, width: 2 * reach, height: 2 * reach }).at(-1);
    const anchor = (near && anchorAt(near, x, y)) ?? null;
    const at = anchor && near !== under ? anchorPoint(anchor, near!) : undefined;
    return at ? { anchor, x: at[0], y: at[1] } : { anchor, x, y };
  }

  /** Shows that an end sticks. */
  private ring({ x, y }: Hold): MarkOf<'shape'> {
    const { reach } = this;
    const box = { x: x - reach / 2, y: y - reach / 2, width: reach, height: reach, rotation: 0, flip: false };
    const style = { line: STICKS, width: reach / 5, dash: 'solid', fill: null, opacity: 1 } as const;
    return { ...this.common!, ...box, kind: 'shape', form: 'ellipse', sides: 5, style };
  }

  private points(): number[] {
    const { from: start, last } = this;
    const end = last.steady ? snapAngle(start, last) : this.holdAt(last, start);
    const at = (t: number, side: number) => [
      start.x + (end.x - start.x) * t + (end.y - start.y) * side,
      start.y + (end.y - start.y) * t - (end.x - start.x) * side,
    ];
    const course = this.mark?.course;
    const controls =
      course === 'quadratic'
        ? at(0.5, 0.35)
        : course === 'cubic'
          ? [...at(0.33, 0.4), ...at(0.67, -0.4)]
          : [];
    return [start.x, start.y, ...controls, end.x, end.y].map((value) => Math.round(value * 100) / 100);
  }
}
