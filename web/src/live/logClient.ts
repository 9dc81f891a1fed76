import type {
  Actor,
  Change,
  LoggedOperation,
  LogRef,
  LogState,
  OpenReply,
  Operation,
  OperationMessage,
  RefusalCode,
  Situation,
  StoredMessage,
  Touched,
  UndoEntry,
} from '@doodla/core';
import {
  applicableChanges,
  LIVE,
  OptimisticLog,
  REFUSALS,
  refusalOf,
  stateOf,
  touchedBy,
} from '@doodla/core';
import { nanoid } from 'nanoid';
import type { Connection } from './connection';
import { LiveError } from './connection';
import { Outbox } from './outbox';
import { Store } from './store';

export interface LogStatus {
  /** Whether the log's content has arrived. */
  ready: boolean;
  /** Operations that the server has not acknowledged. */
  waiting: number;
  canUndo: boolean;
  canRedo: boolean;
}

const RETRY_MS = 1000;

/**
 * One log as this browser sees it. Operations apply at once, wait in the outbox until the server
 * has stored them, and are sent in order, one at a time, now or when the connection is back.
 */
export class LogClient {
  readonly status = new Store<LogStatus>({ ready: false, waiting: 0, canUndo: false, canRedo: false });
  /** Told what changed; undefined means everything. */
  onTouched: (touched: Touched | undefined) => void = () => undefined;
  /** Told when something could not be done. */
  onRefused: (message: string) => void = () => undefined;

  private readonly log = new OptimisticLog();
  private actorOfLog: Actor | undefined;
  private seq = 0;
  private outbox: Outbox | undefined;
  private undoStack: UndoEntry[] = [];
  private redoStack: UndoEntry[] = [];
  private sending = false;
  private readonly stops: (() => void)[];

  constructor(
    private readonly ref: LogRef,
    private readonly connection: Connection,
    private readonly situation: () => Situation,
  ) {
    this.stops = [
      connection.onOnline(() => void this.catchUp()),
      connection.on<[OperationMessage]>(
        LIVE.operation,
        ({ log, logged }) => log === ref.id && this.take(logged),
      ),
      connection.on<[StoredMessage]>(
        LIVE.stored,
        (message) => message.log === ref.id && this.takeStored(message),
      ),
    ];
  }

  get state(): LogState {
    return this.log.visible;
  }

  get actor(): Actor | undefined {
    return this.actorOfLog;
  }

  /** Does something, if it is allowed. Returns whether it was. */
  perform(changes: Change[]): boolean {
    const operation: Operation = { id: nanoid(), changes };
    if (!this.allowed(operation)) return false;
    this.undoStack.push({ id: operation.id, inverse: this.apply(operation) });
    this.redoStack = [];
    this.report();
    return true;
  }

  /** Takes back the last own operation that still has something to take back. */
  undo(): void {
    this.takeBack(this.undoStack, this.redoStack);
  }

  redo(): void {
    this.takeBack(this.redoStack, this.undoStack);
  }

  close(): void {
    for (const stop of this.stops) stop();
  }

  private takeBack(from: UndoEntry[], to: UndoEntry[]): void {
    for (let entry = from.pop(); entry; entry = from.pop()) {
      const changes = applicableChanges(entry.inverse, this.log.visible);
      if (changes.length === 0) continue;
      const operation: Operation = { id: nanoid(), changes, undoes: entry.id };
      if (!this.allowed(operation)) {
        from.push(entry);
        break;
      }
      to.push({ id: operation.id, inverse: this.apply(operation) });
      break;
    }
    this.report();
  }

  private allowed(operation: Operation): boolean {
    if (!this.actorOfLog) return false;
    const reason = refusalOf(operation, this.actorOfLog, this.log.visible, this.situation());
    if (reason) this.onRefused(REFUSALS[reason]);
    return reason === undefined;
  }

  private apply(operation: Operation): Change[] {
    const inverse = this.log.applyOwn(operation);
    this.outbox?.add(operation);
    this.onTouched(touchedBy(operation));
    void this.send();
    return inverse;
  }

  private async catchUp(): Promise<void> {
    try {
      const since = this.status.get().ready ? { since: this.seq } : {};
      const reply = await this.connection.request<OpenReply>(LIVE.open, { log: this.ref, ...since });
      await this.restoreOutbox(reply.actor);
      if (reply.snapshot) {
        performance.mark('log arrived');
        this.seq = reply.snapshot.seq;
        this.log.reset(stateOf(reply.snapshot));
        this.onTouched(undefined);
      }
      for (const logged of reply.operations) this.take(logged);
      if (!this.status.get().ready) this.undoStack = [...reply.undoable, ...this.undoStack];
      this.status.patch({ ready: true });
      this.report();
      void this.send();
    } catch (error) {
      if (error instanceof LiveError && error.code !== 'unreachable') this.onRefused(error.message);
    }
  }

  /** Brings back what an earlier load of this page could not send. */
  private async restoreOutbox(actor: Actor): Promise<void> {
    this.actorOfLog = actor;
    if (this.outbox) return;
    this.outbox = new Outbox(`${this.ref.id} ${actor.id}`);
    for (const operation of await this.outbox.load().catch(() => [])) {
      this.undoStack.push({ id: operation.id, inverse: this.log.applyOwn(operation) });
    }
  }

  private take(logged: LoggedOperation): void {
    if (logged.seq <= this.seq) return;
    if (logged.seq !== this.seq + 1) return void this.catchUp();
    this.seq = logged.seq;
    this.outbox?.remove(logged.operation.id);
    this.onTouched(this.log.confirm(logged));
    this.report();
  }

  private takeStored({ seq, at, operation: id, changes }: StoredMessage): void {
    const own = this.log.pending.find((operation) => operation.id === id);
    if (!own) return void this.catchUp();
    const author = this.actorOfLog?.id ?? '';
    this.take({ seq, at, author, operation: { ...own, changes: changes ?? own.changes } });
  }

  private async send(): Promise<void> {
    if (this.sending || !this.status.get().ready) return;
    this.sending = true;
    try {
      for (let next = this.log.pending[0]; next; next = this.log.pending[0]) {
        await this.submit(next);
      }
    } catch {
      // The connection is gone; catching up sends again.
    } finally {
      this.sending = false;
    }
  }

  /** Throws where the server could not be reached. */
  private async submit(operation: Operation): Promise<void> {
    const wire: Operation = operation.undoes ? { ...operation, changes: [] } : operation;
    try {
      await this.connection.request(LIVE.submit, { log: this.ref, operation: wire });
      if (this.log.pending.includes(operation)) await this.catchUp();
    } catch (error) {
      if (!(error instanceof LiveError) || error.code === 'unreachable') throw error;
      if (isPassing(error.code)) await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
      else this.giveUp(operation, error);
    }
  }

  private giveUp(operation: Operation, error: LiveError): void {
    this.outbox?.remove(operation.id);
    this.undoStack = this.undoStack.filter(({ id }) => id !== operation.id);
    this.redoStack = this.redoStack.filter(({ id }) => id !== operation.id);
    this.onTouched(this.log.refuse(operation.id));
    this.onRefused(error.message);
    this.report();
  }

  private report(): void {
    this.status.patch({
      waiting: this.log.pending.length,
      canUndo: this.undoStack.length > 0,
      canRedo: this.redoStack.length > 0,
    });
  }
}

/** Refusals that go away by waiting; anything else is a verdict on the operation. */
function isPassing(code: RefusalCode | string): boolean {
  return code === 'too-fast' || code === 'failed' || code === 'not-open';
}
