import type { PourDesk } from '../fill/pourFill';
import type { Gesture, PenPoint, Preview } from './gesture';

/** Pours colour where one taps. */
export class PourGesture implements Gesture {
  readonly preview: Preview = {};

  constructor(
    private readonly desk: PourDesk,
    private readonly at: PenPoint,
  ) {}

  move(): void {
    // Colour is poured where the pointer went down.
  }

  end(): void {
    const { desk, at } = this;
    void import('../fill/pourFill').then(({ pourFill }) =>
      pourFill(desk, at.x, at.y, desk.penCase.get().fillGap),
    );
  }

  cancel(): void {
    // Nothing was poured yet.
  }
}
