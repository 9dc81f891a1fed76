/**
 * Long work in small pieces: each piece has a turn of the event loop of its own, however many do such work, so that
 * what comes in between waits for one piece and not for one of each.
 */
export class SlowLane {
  private tail: Promise<void> = Promise.resolve();

  /** Resolves when it is this caller's turn. */
  turn(): Promise<void> {
    this.tail = this.tail.then(() => new Promise((resolve) => setImmediate(resolve)));
    return this.tail;
  }
}

/** The one lane of this process. */
export const slowLane = new SlowLane();
