import type { Operation } from '../ops/operation.js';

/** An operation that waits, with the pages that it concerns. */
export interface WaitingOperation {
  operation: Operation;
  pages: string[];
}

/** Keeps what the server has not acknowledged yet; where and for how long, is its own affair. */
export interface Outbox {
  /** What is waiting, oldest first. */
  load(): Promise<WaitingOperation[]>;
  add(waiting: WaitingOperation): void;
  remove(id: string): void;
}

/** An outbox that is gone when the program ends. */
export class MemoryOutbox implements Outbox {
  private waiting: WaitingOperation[] = [];

  load(): Promise<WaitingOperation[]> {
    return Promise.resolve(this.waiting);
  }

  add(waiting: WaitingOperation): void {
    this.waiting = [...this.waiting, waiting];
  }

  remove(id: string): void {
    this.waiting = this.waiting.filter(({ operation }) => operation.id !== id);
  }
}
