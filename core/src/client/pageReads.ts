import type { PieceMessage } from '../live/messages.js';
import type { Mark } from '../marks/mark.js';

interface Reading {
  page: string;
  number: number;
  /** Marks that were sent, or touched by an operation meanwhile. */
  seen: Set<string>;
}

/** Keeps order among the pages of a log that are wanted: one is read after the other. */
export class PageReads {
  private readonly wanted = new Set<string>();
  private readonly complete = new Set<string>();
  private queue: string[] = [];
  private current: Reading | undefined;
  /** Pages that have marks on the server; undefined before the log has been opened. */
  private written: Set<string> | undefined;
  private readonly waiters = new Map<string, (() => void)[]>();

  private readings = 0;

  /** `ask` asks the server for a page's marks, by the number of the reading. Rejects where they will not come. */
  constructor(private readonly ask: (page: string, read: number) => Promise<void>) {}

  /** Whether all marks of a page are here. */
  isComplete(page: string): boolean {
    return this.complete.has(page) || this.written?.has(page) === false;
  }

  /** Reads a page next, and resolves once all its marks are here. */
  need(page: string): Promise<void> {
    if (this.isComplete(page)) return Promise.resolve();
    this.wanted.add(page);
    if (this.current?.page !== page) this.queue = [page, ...this.queue.filter((other) => other !== page)];
    void this.next();
    return new Promise((resolve) => {
      this.waiters.set(page, [...(this.waiters.get(page) ?? []), resolve]);
    });
  }

  /** Begins after the log has been opened afresh: nothing that was read before counts. */
  restart(written: readonly string[]): void {
    this.written = new Set(written);
    this.complete.clear();
    this.resume();
  }

  /** Goes on after a break: what was half read is read again. */
  resume(): void {
    this.current = undefined;
    this.queue = [...this.wanted].filter((page) => !this.isComplete(page));
    for (const page of this.wanted) if (this.isComplete(page)) this.tell(page);
    void this.next();
  }

  /** Notes marks that an operation has touched. */
  touched(ids: Iterable<string>): void {
    if (this.current) for (const id of ids) this.current.seen.add(id);
  }

  /** Notes a piece. Returns whether it is waited for, and at the end who of the page was not in it. */
  take(
    { page, read, last }: Pick<PieceMessage, 'page' | 'read' | 'last'>,
    marks: readonly Mark[],
  ): { isUnseen?: (id: string) => boolean } | undefined {
    const reading = this.current;
    if (reading?.page !== page || reading.number !== read) return undefined;
    for (const { id } of marks) reading.seen.add(id);
    return last ? { isUnseen: (id) => !reading.seen.has(id) } : {};
  }

  /** All of a page is here. */
  finish(page: string): void {
    this.complete.add(page);
    this.current = undefined;
    this.tell(page);
    void this.next();
  }

  private async next(): Promise<void> {
    if (this.current || !this.written) return;
    const page = this.queue.shift();
    if (page === undefined) return;
    const reading: Reading = { page, number: ++this.readings, seen: new Set() };
    this.current = reading;
    try {
      await this.ask(page, reading.number);
    } catch {
      // The connection is gone, or the log has to be opened anew: `resume` asks again.
      if (this.current === reading) this.current = undefined;
    }
  }

  private tell(page: string): void {
    const waiters = this.waiters.get(page) ?? [];
    this.waiters.delete(page);
    for (const done of waiters) done();
  }
}
