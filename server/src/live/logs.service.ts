import type { OnModuleDestroy } from '@nestjs/common';
import { Injectable, Logger } from '@nestjs/common';
import type {
  Actor,
  Change,
  LoggedOperation,
  LogView,
  Mark,
  Operation,
  Page,
  RefusalCode,
  UndoEntry,
} from '@doodla/core';
import { applyChanges, invertChanges, pagesConcerned, Refusal, touchedBy, undoChanges } from '@doodla/core';
import { logFailure } from '../http/failures.js';
import type { AppendedOperation, Stretch } from '../storage/storedLog.js';
import { Leases } from '../processes/leases.js';
import { FencedError, TakenError } from '../storage/logDatabase.js';
import { LogStore } from '../storage/logStore.js';
import { OpenLog } from './openLog.js';

/** How long an unused log stays in memory. */
const IDLE_MS = 10 * 60_000;
const SWEEP_MS = 60_000;
/** Author of what the server itself does for somebody, which is nobody's to undo. */
export const SERVER = 'server';

export interface AppendOptions {
  /** Whose undo is worked out; changes that they may not touch any more are left out of it. */
  actor?: Actor;
  /** Says whether the operation is allowed, given the state before it. */
  judge?(operation: Operation, view: LogView, markCount: number): RefusalCode | undefined;
  /** When it happened, for logs that are made of earlier events. */
  at?: number;
}

/** An operation that has just been stored, for those who have the log open. */
export interface FreshOperation extends AppendedOperation {
  /** From when it was to be stored to when it was on the disk, milliseconds. */
  tookMs: number;
  /** A mark that it touched, as it is now, or as it was before it went. */
  known(mark: string): Mark | undefined;
}

type AppendListener = (logId: string, fresh: FreshOperation) => void;

/** The logs of operations: numbered, stored before acknowledged, each operation once. */
@Injectable()
export class LogsService implements OnModuleDestroy {
  private readonly logger = new Logger('Logs');
  private readonly logs = new Map<string, OpenLog>();
  /** Logs that are being read, for all who ask meanwhile. */
  private readonly readings = new Map<string, Promise<OpenLog>>();
  private readonly listeners: AppendListener[] = [];
  private isHeld: (logId: string) => boolean = () => false;
  private readonly sweeper = setInterval(() => this.closeIdle(), SWEEP_MS).unref();

  constructor(
    private readonly store: LogStore,
    private readonly leases: Leases,
  ) {
    leases.onLeaving((lesson) => this.leave(lesson));
  }

  /** Tells of operations, once they are stored and applied, in the order of their numbers. */
  onAppended(listener: AppendListener): void {
    this.listeners.push(listener);
  }

  /** Sets who says which logs somebody has open, so that they stay in memory. */
  holdWhile(isHeld: (logId: string) => boolean): void {
    this.isHeld = isHeld;
  }

  /** How many logs are in memory. */
  get count(): number {
    return this.logs.size;
  }

  onModuleDestroy(): void {
    clearInterval(this.sweeper);
  }

  /** A log with its pages; one that was never written to is empty. Of one in another process's hand, as it is now. */
  async open(id: string): Promise<OpenLog> {
    const fence = this.leases.fenceOf(id);
    if (fence === undefined) return new OpenLog(id, this.store, await this.store.head(id));
    const known = this.logs.get(id);
    // In other hands meanwhile, and back again.
    if (known && known.fence !== fence) this.close(known);
    const log = this.logs.get(id) ?? (await this.read(id));
    log.usedAt = Date.now();
    return log;
  }

  /**
   * Judges, numbers, stores, applies and tells of an operation, in this order. One that is already there is
   * left at that. Returns it as it stands in the log. Throws Refusal.
   */
  async append(
    logId: string,
    author: string,
    operation: Operation,
    options: AppendOptions = {},
  ): Promise<LoggedOperation> {
    try {
      return await this.appendOnce(logId, author, operation, options);
    } catch (error) {
      if (!(error instanceof TakenError || error instanceof FencedError)) throw error;
      // Memory and database no longer agree on what is there: the database is right.
      const log = this.logs.get(logId);
      if (log) this.close(log);
      if (error instanceof FencedError) throw error;
      return this.appendOnce(logId, author, operation, options);
    }
  }

  private async appendOnce(
    logId: string,
    author: string,
    operation: Operation,
    options: AppendOptions,
  ): Promise<LoggedOperation> {
    return this.inTurn(logId, async (log) => {
      const known = await this.store.find(logId, operation.id);
      if (known) return known.logged;
      const { changes, view } = await this.workedOut(log, author, operation, options.actor);
      const full: Operation = { ...operation, changes };
      const reason = options.judge?.(full, view, log.markCount);
      if (reason) throw new Refusal(reason);
      const at = options.at ?? Date.now();
      return this.keep(log, view, { seq: log.seq + 1, author, at, operation: full });
    });
  }

  /** Does something while nothing is stored in a log, which this process takes in hand. Throws ElsewhereError. */
  async inTurn<T>(logId: string, task: (log: OpenLog) => Promise<T>): Promise<T> {
    if (!this.leases.isHeld(logId)) await this.leases.take(logId);
    const log = await this.open(logId);
    return log.inTurn(() => (log.closed ? this.inTurn(logId, task) : task(log)));
  }

  /** Stored operations after number `since`, in order. */
  since(logId: string, since: number): Promise<AppendedOperation[]> {
    return this.store.since(logId, since);
  }

  /** A stretch of operations, in order. */
  stretch(logId: string, stretch: Stretch): Promise<AppendedOperation[]> {
    return this.store.stretch(logId, stretch);
  }

  /** Of a stretch of operations those that concern a page, in order. */
  concerning(logId: string, page: string, stretch: Stretch): Promise<AppendedOperation[]> {
    return this.store.concerning(logId, page, stretch);
  }

  /** A stored operation by its id. */
  find(logId: string, id: string): Promise<AppendedOperation | undefined> {
    return this.store.find(logId, id);
  }

  /** The last operations that took marks away or changed them, newest first, at most so many. */
  lastChanging(logId: string, most: number): Promise<AppendedOperation[]> {
    return this.store.lastChanging(logId, most);
  }

  /** What a person can still undo, oldest first. */
  undoable(logId: string, author: string): Promise<UndoEntry[]> {
    return this.store.undoable(logId, author);
  }

  writtenPages(logId: string): Promise<string[]> {
    return this.store.writtenPages(logId);
  }

  /** Forgets logs, with all that is in them. */
  async remove(logIds: readonly string[]): Promise<void> {
    for (const id of logIds) {
      await this.leases.takeOver(id);
      const log = (await this.readings.get(id)) ?? this.logs.get(id);
      if (log) this.close(log);
    }
    await this.store.remove(logIds);
  }

  /** Takes everything of a student out of a log that nobody writes in. Returns the pages that it was on. */
  async forget(logId: string, student: string): Promise<string[]> {
    await this.leases.takeOver(logId);
    return this.inTurn(logId, async (log) => {
      const pages = await this.store.forget(logId, student, log.fence);
      this.close(log);
      return pages;
    });
  }

  /** The changes of an operation, which of an undo are the server's to say, and the marks that they touch. */
  private async workedOut(log: OpenLog, author: string, operation: Operation, actor: Actor | undefined) {
    if (operation.undoes === undefined) {
      const { changes } = operation;
      return { changes, view: await log.viewOf(marksNamed(changes)) };
    }
    const undone = await this.store.find(log.id, operation.undoes);
    if (!undone) throw new Refusal('no-such-mark');
    if (undone.logged.author !== author) throw new Refusal('not-yours');
    const view = await log.viewOf(marksNamed(undone.inverse));
    return { changes: actor ? undoChanges(undone.inverse, actor, view) : undone.inverse, view };
  }

  private async keep(
    log: OpenLog,
    view: LogView & { marks: Map<string, Mark> },
    logged: LoggedOperation,
  ): Promise<LoggedOperation> {
    const { changes } = logged.operation;
    const inverse = invertChanges(view, changes);
    const pages = pagesConcerned(changes, view);
    const after: LogView & { marks: Map<string, Mark> } = {
      pages: new Map(view.pages),
      marks: new Map(view.marks),
    };
    applyChanges(after, changes);
    const touched = touchedBy(logged.operation);
    const marks = new Map<string, Mark | undefined>();
    for (const id of touched.marks) marks.set(id, after.marks.get(id));
    const touchedPages = new Map<string, Page | undefined>();
    for (const id of touched.pages) touchedPages.set(id, after.pages.get(id));
    const markCountChange = after.marks.size - view.marks.size;
    const began = performance.now();
    const append = { logged, inverse, pages, marks, markCountChange, touchedPages };
    await this.store.append(log.id, append, log.fence);
    log.seq = logged.seq;
    log.markCount += markCountChange;
    log.take(marks, touchedPages);
    const known = (id: string) => after.marks.get(id) ?? view.marks.get(id);
    const tookMs = performance.now() - began;
    for (const listener of this.listeners) listener(log.id, { logged, inverse, known, tookMs });
    return logged;
  }

  private read(id: string): Promise<OpenLog> {
    let reading = this.readings.get(id);
    if (!reading) {
      reading = this.readNow(id).finally(() => this.readings.delete(id));
      this.readings.set(id, reading);
    }
    return reading;
  }

  private async readNow(id: string): Promise<OpenLog> {
    const fence = await this.leases.take(id);
    // Whoever had it in hand before stores nothing more from here on, so that what is read stays right.
    if (fence > 0) await this.store.fence(id, fence);
    const log = new OpenLog(id, this.store, await this.store.head(id), fence);
    this.logs.set(id, log);
    return log;
  }

  /** Puts the logs of a lesson away once what is being stored in them is stored. */
  private async leave(lesson: string): Promise<void> {
    for (const log of this.logs.values())
      if (this.leases.lessonOf(log.id) === lesson) await log.inTurn(() => Promise.resolve(this.close(log)));
  }

  private close(log: OpenLog): void {
    log.closed = true;
    if (this.logs.get(log.id) === log) this.logs.delete(log.id);
  }

  private closeIdle(now = Date.now()): void {
    for (const log of this.logs.values()) {
      log.forgetPages(now - IDLE_MS);
      if (now - log.usedAt < IDLE_MS || this.isHeld(log.id)) continue;
      log
        .inTurn(() => Promise.resolve(this.close(log)))
        .catch((error: unknown) => logFailure(this.logger, 'A log could not be put away', error));
    }
  }
}

/** Marks that changes are about. */
function* marksNamed(changes: readonly Change[]): Iterable<string> {
  for (const change of changes) {
    if (change.do === 'add') yield change.mark.id;
    else if ('mark' in change) yield change.mark;
  }
}
