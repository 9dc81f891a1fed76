import type { Workspace } from '../workspace/workspace';
import type { Gesture, PenPoint, Preview } from './gesture';

/** Pours colour where one taps. */
export class PourGesture implements Gesture {
  readonly preview: Preview = {};

  constructor(
    private readonly workspace: Workspace,
    private readonly at: PenPoint,
  ) {}

  move(): void {
    // Colour is poured where the pointer went down.
  }

  end(): void {
    const { workspace, at } = this;
    void import('../fill/pourFill').then(({ pourFill }) =>
      pourFill(workspace, at.x, at.y, workspace.penCase.get().fillGap),
    );
  }

  cancel(): void {
    // Nothing was poured yet.
  }
}
