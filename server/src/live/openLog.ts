import type { LogView, Mark, Page, Table } from '@doodla/core';
import { slowLane } from './slowLane.js';
import type { LogStore } from '../storage/logStore.js';
import type { LogHead } from '../storage/storedLog.js';

/** Marks that are read from the database at once; a handful of milliseconds. */
const READ_AT_ONCE = 120;

/** The marks of a page in memory, by id, as long as somebody reads them. */
interface CachedPage {
  marks: Map<string, Mark>;
  /** Marks that operations have touched while it is being read: of these memory knows best. */
  touched: Set<string> | undefined;
  /** Settles once all of them are there. */
  complete: Promise<void>;
  usedAt: number;
}

/** A log in memory: its pages, marks of the pages that are looked at, and a queue for what changes it. */
export class OpenLog {
  private queue: Promise<unknown> = Promise.resolve();
  private readonly cached = new Map<string, CachedPage>();
  readonly pages: Map<string, Page>;
  seq: number;
  markCount: number;
  usedAt = Date.now();
  /** Whether it is in use no more; whoever still holds it has to open the log anew. */
  closed = false;

  constructor(
    readonly id: string,
    private readonly store: LogStore,
    head: LogHead,
    /** By which it is known who stores something in it. */
    readonly fence = 0,
  ) {
    this.pages = head.pages;
    this.seq = head.seq;
    this.markCount = head.markCount;
  }

  /** Runs tasks strictly one after the other. */
  inTurn<T>(task: () => Promise<T>): Promise<T> {
    this.usedAt = Date.now();
    const result = this.queue.then(task);
    this.queue = result.catch(() => undefined); // Whoever asked for the task hears of its failure.
    return result;
  }

  /** The log as operations see it that touch certain marks. */
  async viewOf(ids: Iterable<string>): Promise<LogView & { marks: Map<string, Mark> }> {
    const marks = new Map<string, Mark>();
    const missing: string[] = [];
    for (const id of new Set(ids)) {
      const mark = this.cachedMark(id);
      if (mark) marks.set(id, mark);
      else missing.push(id);
    }
    for (const [id, mark] of await this.store.marks(this.id, missing)) marks.set(id, mark);
    return { pages: this.pages, marks };
  }

  /** The marks of a page, all of them and kept in step from then on. */
  async marksOn(page: string): Promise<ReadonlyMap<string, Mark>> {
    let cached = this.cached.get(page);
    if (!cached) {
      const marks = new Map<string, Mark>();
      const touched = new Set<string>();
      const complete = this.readAll(page, marks, touched);
      const reading: CachedPage = { marks, touched, complete, usedAt: Date.now() };
      this.cached.set(page, reading);
      complete.then(
        () => (reading.touched = undefined),
        // Whoever asked for the page hears of its failure; the next one reads it anew.
        () => this.cached.delete(page),
      );
      cached = reading;
    }
    await cached.complete;
    cached.usedAt = Date.now();
    return cached.marks;
  }

  /** All marks of the log, page by page. */
  async allMarks(): Promise<Mark[]> {
    const marks: Mark[] = [];
    for (const page of await this.store.writtenPages(this.id))
      marks.push(...(await this.marksOn(page)).values());
    return marks;
  }

  /** Takes in what a stored operation has made of the marks and pages that it touched. */
  take(marks: ReadonlyMap<string, Mark | undefined>, pages: ReadonlyMap<string, Page | undefined>): void {
    for (const [id, mark] of marks) {
      for (const page of this.cached.values()) page.touched?.add(id);
      if (mark) this.cached.get(mark.page)?.marks.set(id, mark);
      else for (const page of this.cached.values()) page.marks.delete(id);
    }
    for (const [id, page] of pages) put(this.pages, id, page);
  }

  /** Lets go of pages at which nobody has looked since. */
  forgetPages(before: number): void {
    for (const [id, { usedAt }] of this.cached) if (usedAt < before) this.cached.delete(id);
  }

  /** In small pieces, between which others have their turn; what changes meanwhile is taken in as it is stored. */
  private async readAll(page: string, marks: Map<string, Mark>, touched: Set<string>): Promise<void> {
    for (let after = ''; ;) {
      const some = await this.store.marksOn(this.id, page, after, READ_AT_ONCE);
      for (const mark of some) if (!touched.has(mark.id)) marks.set(mark.id, mark);
      if (some.length < READ_AT_ONCE) return;
      after = some.at(-1)!.id;
      await slowLane.turn();
    }
  }

  private cachedMark(id: string): Mark | undefined {
    for (const { marks } of this.cached.values()) {
      const mark = marks.get(id);
      if (mark) return mark;
    }
    return undefined;
  }
}

function put<T>(table: Table<T>, id: string, value: T | undefined): void {
  if (value === undefined) table.delete(id);
  else table.set(id, value);
}
