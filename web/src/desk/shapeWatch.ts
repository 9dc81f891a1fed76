import type { InkWatch } from './desk';
import type { NeatDesk } from './neaten';

/** A hand that rests so long has finished its drawing, ms. */
const PAUSE = 600;

/** Waits until what is drawn is finished, and has it made neat. */
export class ShapeWatch implements InkWatch {
  private drawing: string[] = [];
  private timer: ReturnType<typeof setTimeout> | undefined;

  constructor(private readonly desk: NeatDesk) {}

  hold(): void {
    clearTimeout(this.timer);
  }

  drawn(id: string): void {
    this.drawing.push(id);
    clearTimeout(this.timer);
    this.timer = setTimeout(() => {
      const drawing = this.drawing.splice(0);
      import('./neaten').then(({ neatenDrawn }) => neatenDrawn(this.desk, drawing)).catch(() => undefined); // Where it cannot be fetched or read, the ink stays as it was drawn.
    }, PAUSE);
  }
}
