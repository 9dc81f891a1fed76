import type { Mark, Rect } from '@doodla/core';
import { draggedBox } from '@doodla/core';
import type { Desk } from '../desk/desk';
import type { Preview } from '../canvas/preview';
import type { Gesture, PenPoint } from '../desk/gesture';

/** A box not drawn larger than this was only tapped; page units. */
const TAP = 12;

export interface Placing {
  /** Makes the mark for a box; undefined where it cannot be made. */
  make(box: Rect): Mark | undefined;
  /** Size of what a tap puts down, its middle where one taps. */
  tapSize: { width: number; height: number };
  /** Whether the box is always square. */
  square: boolean;
}

/** Puts something down that fills a box: drawn by dragging, or of a ready size by a tap. */
export class PlaceGesture implements Gesture {
  private last: PenPoint;

  constructor(
    private readonly desk: Pick<Desk, 'target'>,
    private readonly start: PenPoint,
    private readonly placing: Placing,
    private readonly onPlaced: (mark: Mark) => void = () => undefined,
  ) {
    this.last = start;
  }

  get preview(): Preview {
    const mark = this.isTap ? undefined : this.placing.make(this.box());
    return mark ? { marks: [mark] } : {};
  }

  move(points: readonly PenPoint[]): void {
    this.last = points.at(-1) ?? this.last;
  }

  end(): void {
    const mark = this.placing.make(this.isTap ? this.tapBox() : this.box());
    if (mark && this.desk.target.perform([{ do: 'add', mark }]) !== undefined) this.onPlaced(mark);
  }

  cancel(): void {
    // Nothing was put on the page yet.
  }

  private get isTap(): boolean {
    return Math.abs(this.last.x - this.start.x) < TAP && Math.abs(this.last.y - this.start.y) < TAP;
  }

  private tapBox(): Rect {
    const { width, height } = this.placing.tapSize;
    return { x: this.start.x - width / 2, y: this.start.y - height / 2, width, height };
  }

  private box(): Rect {
    const { start, last, placing } = this;
    return draggedBox(start, last, { square: placing.square || last.steady, centred: last.centred });
  }
}
