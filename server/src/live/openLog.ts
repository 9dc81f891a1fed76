import type { LogState } from '@doodla/core';

/** A log in memory: its state, and a queue that lets one operation after the other at it. */
export class OpenLog {
  private queue: Promise<unknown> = Promise.resolve();
  usedAt = Date.now();

  constructor(
    readonly id: string,
    readonly state: LogState,
    public seq: number,
    /** Number of operations that the stored snapshot holds. */
    public snapshotSeq: number,
  ) {}

  /** Runs tasks strictly one after the other. */
  inTurn<T>(task: () => Promise<T>): Promise<T> {
    this.usedAt = Date.now();
    const result = this.queue.then(task);
    this.queue = result.catch(() => undefined);
    return result;
  }
}
