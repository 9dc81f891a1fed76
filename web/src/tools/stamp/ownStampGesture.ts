import type { ToolDesk } from '../toolWork';
import type { Preview } from '../../canvas/preview';
import type { Gesture, PenPoint } from '../../desk/gesture';

/** Puts one of the teacher's own stamps where one taps. */
export class OwnStampGesture implements Gesture {
  readonly preview: Preview = {};

  constructor(
    private readonly desk: Pick<ToolDesk, 'penCase' | 'pictureActions'>,
    private readonly at: PenPoint,
  ) {}

  move(): void {
    // A stamp has a size of its own and goes where the pointer went down.
  }

  end(): void {
    const { ownStamp } = this.desk.penCase.get();
    if (ownStamp !== null) void this.desk.pictureActions.stamp(ownStamp, this.at);
  }

  cancel(): void {
    // Nothing was put on the page yet.
  }
}
