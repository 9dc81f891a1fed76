import type { Desk } from '../../desk/desk';
import type { Preview } from '../../canvas/preview';
import type { Gesture, PenPoint } from '../../desk/gesture';

/** A bright dot for the class that follows the hand and leaves nothing behind. */
export class PointGesture implements Gesture {
  readonly preview: Preview = {};
  private readonly page: string | undefined;

  constructor(
    private readonly desk: Pick<Desk, 'pageId' | 'pointers'>,
    at: PenPoint,
  ) {
    this.page = desk.pageId.get();
    this.move([at]);
  }

  move(points: readonly PenPoint[]): void {
    const last = points.at(-1);
    if (last && this.page !== undefined) this.desk.pointers.point(this.page, last.x, last.y);
  }

  end(): void {
    if (this.page !== undefined) this.desk.pointers.rest(this.page);
  }

  cancel(): void {
    this.end();
  }
}
