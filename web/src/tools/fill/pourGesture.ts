import type { PourDesk } from './pourFill';
import type { Preview } from '../../canvas/preview';
import type { Gesture, PenPoint } from '../../desk/gesture';

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
    void import('./pourFill').then(({ pourFill }) => pourFill(desk, at.x, at.y, desk.penCase.get().fillGap));
  }

  cancel(): void {
    // Nothing was poured yet.
  }
}
