import type { Workspace } from '../workspace/workspace';
import type { Gesture, PenPoint, Preview } from './gesture';

/** Puts one of the teacher's own stamps where one taps. */
export class OwnStampGesture implements Gesture {
  readonly preview: Preview = {};

  constructor(
    private readonly workspace: Workspace,
    private readonly at: PenPoint,
  ) {}

  move(): void {
    // A stamp has a size of its own and goes where the pointer went down.
  }

  end(): void {
    const { ownStamp } = this.workspace.penCase.get();
    if (ownStamp !== null) void this.workspace.pictureActions.stamp(ownStamp, this.at);
  }

  cancel(): void {
    // Nothing was put on the page yet.
  }
}
