import type {
  LogRef,
  OpenReply,
  OperationsMessage,
  PieceMessage,
  ReadRequest,
  SubmitReply,
  SubmitRequest,
  UndoEntry,
} from '../live/messages.js';
import type { LogState } from '../ops/logState.js';
import type { Change, LoggedOperation, Operation } from '../ops/operation.js';
import type { Touched } from '../ops/optimistic.js';
import type { Actor, Situation } from '../ops/permit.js';
import { LIVE, PASSING } from '../live/messages.js';
import { packChanges, unpackLogged, unpackMark } from '../live/wire.js';
import { OptimisticLog, touchedBy } from '../ops/optimistic.js';
import { refusalOf } from '../ops/permit.js';
import type { RefusalCode } from '../ops/refusal.js';
import { REFUSALS } from '../ops/refusal.js';
import { concernsPages, pagesConcerned, undoChanges } from '../ops/undo.js';
import { nanoid } from 'nanoid';
import type { Line } from './line.js';
import { LiveError } from './line.js';
import type { Outbox } from './outbox.js';
import { PageReads } from './pageReads.js';
import { Signal } from './signal.js';
import { Store } from './store.js';
import type { Taking } from './undoStacks.js';
import { UndoStacks } from './undoStacks.js';

export interface LogStatus {
  /** Whether the log's pages have arrived. */
  ready: boolean;
  /** Operations that the server has not acknowledged. */
  waiting: number;
  /** Why what waits is held back, if it is: its class has ended, or pens went down meanwhile. */
  held: 'ended' | 'pens-down' | undefined;
  canUndo: boolean;
  canRedo: boolean;
}

/** What has changed: marks and pages by id, or whole pages whose marks have arrived. */
export interface LogChange extends Touched {
  arrived?: string;
}

/** A step that was taken back or done again. */
export interface StepTaken {
  which: 'undo' | 'redo';
  pages: readonly string[];
  ofPages: boolean;
}

/** What a log needs of a connection. */
export type LogLine = Pick<Line, 'on' | 'onOnline' | 'request'>;

interface LogClientOptions {
  /** A refusal in the language of whoever reads it; English where it is not given. */
  say?: (why: RefusalCode) => string;
  situation: () => Situation;
  /** Whether only what is done here can be undone, not what the same person did elsewhere or before. */
  startsAnew?: boolean;
  /** Where operations wait across reloads, for one author. */
  outboxFor: (owner: string) => Outbox;
}

const RETRY_MS = 1000;

/**
 * One log as this browser sees it. Operations apply at once, wait in the outbox until the server has stored
 * them, and are sent in order, one at a time, now or when the connection is back. Marks are read by page.
 */
export class LogClient {
  readonly status = new Store<LogStatus>({
    ready: false,
    waiting: 0,
    held: undefined,
    canUndo: false,
    canRedo: false,
  });
  /** Tells what changed. */
  readonly touched = new Signal<LogChange>();
  /** Tells what could not be done, in a sentence. */
  readonly refused = new Signal<string>();
  /** Tells of an own operation that the server has refused, before it is taken back. */
  readonly givenUp = new Signal<Operation>();
  /** Tells of what was undone or redone. */
  readonly stepped = new Signal<StepTaken>();
  /** Resolves when the log can be written to for the first time. */
  readonly hasOpened: Promise<void>;

  private readonly log = new OptimisticLog();
  private readonly reads = new PageReads((page, read) => this.read({ log: this.ref, page, read }));
  private readonly steps = new UndoStacks();
  private actorOfLog: Actor | undefined;
  private seq = 0;
  private outbox: Outbox | undefined;
  private page: string | undefined;
  private sending = false;
  private sendAgain = false;
  private catching: Promise<void> | undefined;
  private catchAgain = false;
  /** Operations that came before those that belong before them, by number. */
  private readonly early = new Map<number, LoggedOperation>();
  /** Operations that were made while the server could not be reached; all that wait once something was held. */
  private readonly madeAlone = new Set<string>();
  /** Whether all is to be asked for, whatever is here. */
  private anew = false;
  /** What is in the way of storing, as long as it is. */
  private trouble: string | undefined;
  private closed = false;
  private opened = (): void => undefined;
  private readonly stops: (() => void)[];

  constructor(
    private readonly ref: LogRef,
    private readonly connection: LogLine,
    private readonly options: LogClientOptions,
  ) {
    this.hasOpened = new Promise((resolve) => (this.opened = resolve));
    this.stops = [
      connection.onOnline(() => void this.catchUp()),
      connection.on<[OperationsMessage]>(LIVE.operations, ({ log, logged }) => {
        if (log === ref.id) for (const one of logged) this.take(unpackLogged(one));
      }),
      connection.on<[PieceMessage]>(LIVE.piece, (piece) => {
        if (piece.log === ref.id) this.takePiece(piece);
      }),
    ];
  }

  get state(): LogState {
    return this.log.visible;
  }

  get actor(): Actor | undefined {
    return this.actorOfLog;
  }

  /** Operations that the server has not acknowledged, oldest first. */
  get pending(): readonly Operation[] {
    return this.log.pending;
  }

  /** Whether all marks of a page are here. */
  isComplete(page: string): boolean {
    return this.reads.isComplete(page);
  }

  /** Sees to it that all marks of a page come, and resolves when they are here. */
  need(page: string): Promise<void> {
    return this.reads.need(page);
  }

  /** Says which page is in sight: undo and redo are of that page. */
  lookAt(page: string | undefined): void {
    this.page = page;
    this.report();
  }

  /** Does something, if it is allowed. Returns the step's id if it was. */
  perform(changes: Change[]): string | undefined {
    const operation: Operation = { id: nanoid(), changes };
    if (!this.allowed(operation)) return undefined;
    this.steps.did(this.apply(operation));
    this.report();
    return operation.id;
  }

  /** Whether something would be allowed now. */
  allows(changes: Change[]): boolean {
    const { actorOfLog: actor } = this;
    if (!actor) return false;
    return !refusalOf({ id: '', changes }, actor, this.log.visible, this.options.situation());
  }

  /** Takes back a certain step, if it was not taken back already. */
  takeBack(step: string): void {
    const taken = this.steps.takeStep(step);
    if (taken) this.takeStep('undo', taken);
    this.report();
  }

  /** Notes a step that the server did when this person asked for it, so that it can be undone. */
  adopt(step: UndoEntry): void {
    this.steps.did(step);
    this.report();
  }

  /** Takes back the last own operation on the page in sight that still has something to take back. */
  undo(): void {
    this.step('undo');
  }

  redo(): void {
    this.step('redo');
  }

  /** Asks for all again, since other marks are to be seen. */
  reload(): void {
    this.anew = true;
    if (this.status.get().ready) void this.catchUp();
  }

  /** Tries again to send what was held back. */
  resume(): void {
    if (!this.status.get().held) return;
    this.status.patch({ held: undefined });
    void this.send();
  }

  close(): void {
    this.closed = true;
    for (const stop of this.stops) stop();
  }

  private step(which: 'undo' | 'redo'): void {
    let taken = this.steps.take(which, this.page);
    while (taken && !this.takeStep(which, taken)) taken = this.steps.take(which, this.page);
    this.report();
  }

  /** Returns false where nothing was left to be taken back. */
  private takeStep(which: StepTaken['which'], taken: Taking): boolean {
    const { entry } = taken;
    const changes = entry.inverse ? undoChanges(entry.inverse, this.actorOfLog!, this.log.visible) : [];
    if (entry.inverse && changes.length === 0) return false;
    const operation: Operation = { id: nanoid(), changes, undoes: entry.id };
    if (!this.allowed(operation)) {
      this.steps.putBack(taken);
      return true;
    }
    // Without an inverse here, the server says what is taken back.
    const { inverse } = this.apply(operation);
    this.steps.took(taken, operation.id, entry.inverse && inverse);
    this.stepped.tell({ which, pages: entry.pages, ofPages: entry.ofPages });
    return true;
  }

  private allowed(operation: Operation): boolean {
    if (!this.actorOfLog) return false;
    const reason = refusalOf(operation, this.actorOfLog, this.log.visible, this.options.situation());
    if (reason) this.refused.tell(this.options.say?.(reason) ?? REFUSALS[reason]);
    return reason === undefined;
  }

  private apply(operation: Operation): UndoEntry {
    const entry = this.applyHere(operation);
    this.outbox?.add({ operation, pages: entry.pages });
    this.touched.tell(touchedBy(operation));
    void this.send();
    return entry;
  }

  /** What an own operation does is known to nobody but the server where it touches marks that are not here. */
  private applyHere(operation: Operation): UndoEntry {
    const { changes } = operation;
    const pages = pagesConcerned(changes, this.log.visible);
    const isHere = (change: Change) =>
      (change.do !== 'patch' && change.do !== 'remove') || this.log.visible.marks.has(change.mark);
    const isKnown = changes.every(isHere);
    const inverse = this.log.applyOwn(operation);
    return { id: operation.id, pages, ofPages: concernsPages(changes), ...(isKnown && { inverse }) };
  }

  /** One at a time; asked for meanwhile, it is done again afterwards. */
  private catchUp(): Promise<void> {
    if (this.catching) {
      this.catchAgain = true;
      return this.catching;
    }
    this.catching = this.catchUpOnce().finally(() => {
      this.catching = undefined;
      if (!this.catchAgain || this.closed) return;
      this.catchAgain = false;
      void this.catchUp();
    });
    return this.catching;
  }

  private async catchUpOnce(): Promise<void> {
    try {
      const since = this.status.get().ready && !this.anew ? { since: this.seq } : {};
      const reply = await this.connection.request<OpenReply>(LIVE.open, { log: this.ref, ...since });
      if (this.closed) return;
      this.actorOfLog = reply.actor;
      this.anew = false;
      if (reply.pages) this.startOver(reply.seq, reply);
      for (const logged of reply.operations) this.take(unpackLogged(logged));
      this.takeEarly();
      if (reply.pages && !this.status.get().ready) await this.restoreOutbox(reply);
      if (this.closed) return;
      if (!reply.pages) this.reads.resume();
      this.noteMadeAlone();
      this.status.patch({ ready: true });
      this.opened();
      this.report();
      void this.send();
    } catch (error) {
      // An unreachable server is asked again as soon as the connection is back.
      if (!(error instanceof LiveError && error.code === 'unreachable')) this.refused.tell(sentenceOf(error));
    }
  }

  private startOver(seq: number, { pages = [], written = [] }: OpenReply): void {
    performance.mark('log arrived');
    this.seq = seq;
    this.touched.tell(this.log.loadPages(pages));
    this.reads.restart(written);
  }

  /** Brings back what an earlier load of this page could not send. */
  private async restoreOutbox({ actor, undoable }: OpenReply): Promise<void> {
    this.outbox = this.options.outboxFor(`${this.ref.id} ${actor.id}`);
    const waiting = await this.outbox.load();
    if (!this.options.startsAnew) this.steps.restore(undoable);
    for (const { operation, pages } of waiting) {
      this.steps.replay(operation, { ...this.applyHere(operation), pages });
      this.touched.tell(touchedBy(operation));
    }
  }

  private async read(request: ReadRequest): Promise<void> {
    try {
      await this.connection.request(LIVE.read, request);
    } catch (error) {
      if (!(error instanceof LiveError) || error.code !== 'too-fast') throw error;
      await pause();
      return this.read(request);
    }
  }

  private takePiece(piece: PieceMessage): void {
    const marks = piece.marks.map(unpackMark);
    const taken = this.reads.take(piece, marks);
    if (!taken) return;
    const gone = taken.isUnseen ? this.log.confirmedOn(piece.page).filter(taken.isUnseen) : [];
    const touched = this.log.load(marks, gone);
    if (!piece.last) return;
    this.reads.finish(piece.page);
    performance.mark('page arrived');
    this.touched.tell({ ...touched, arrived: piece.page });
  }

  private take(logged: LoggedOperation): void {
    if (logged.seq <= this.seq) return;
    if (logged.seq !== this.seq + 1) {
      this.early.set(logged.seq, logged);
      if (!this.catching) void this.catchUp();
      return;
    }
    this.seq = logged.seq;
    this.acknowledged(logged.operation.id);
    const touched = this.log.confirm(logged);
    this.reads.touched(touched.marks);
    this.touched.tell(touched);
    this.takeEarly();
    this.report();
  }

  private takeEarly(): void {
    for (const seq of this.early.keys()) if (seq <= this.seq) this.early.delete(seq);
    const next = this.early.get(this.seq + 1);
    if (next) this.take(next);
  }

  private async send(): Promise<void> {
    // The line may have come back while the failure of what was under way has not arrived yet.
    this.sendAgain = this.sending;
    if (this.sending || !this.status.get().ready) return;
    this.sending = true;
    try {
      while (this.log.pending[0] && !this.status.get().held && !this.closed)
        await this.submit(this.log.pending[0]);
    } catch (error) {
      // The connection is gone; catching up sends again.
      if (!(error instanceof LiveError)) this.refused.tell(sentenceOf(error));
    } finally {
      this.sending = false;
    }
    if (this.sendAgain) void this.send();
  }

  /** Throws where the server could not be reached. */
  private async submit(operation: Operation): Promise<void> {
    const changes = operation.undoes ? [] : packChanges(operation.changes);
    const message: SubmitRequest = { log: this.ref, operation: { ...operation, changes } };
    try {
      const { seq } = await this.connection.request<SubmitReply>(LIVE.submit, message);
      this.trouble = undefined;
      if (this.isPending(operation) && seq > this.seq) await this.catchUp();
      if (this.isPending(operation) && seq <= this.seq) this.settle(operation);
      // Nothing to be had by asking at once again.
      if (this.isPending(operation)) await pause();
    } catch (error) {
      if (!(error instanceof LiveError) || error.code === 'unreachable') throw error;
      const held = this.holds(operation, error.code);
      if (held && this.isBarred()) this.status.patch({ held });
      else if (held) await pause();
      else if (error.code === 'not-open') await this.catchUp();
      else if (isPassing(error.code)) await this.waitOut(error);
      else this.giveUp(operation, error);
    }
  }

  /** Says once that something is in the way, and tries again a little later. */
  private async waitOut({ code, message }: LiveError): Promise<void> {
    if (code !== 'too-fast' && code !== this.trouble) this.refused.tell(message);
    this.trouble = code;
    await pause();
  }

  private noteMadeAlone(): void {
    for (const { id } of this.log.pending) this.madeAlone.add(id);
  }

  /**
   * What a class ended over, or pens went down over while there was no connection, is kept until it may be
   * written: it was allowed when it was made.
   */
  private holds({ id }: Operation, code: string): LogStatus['held'] {
    if (code === 'ended') {
      this.noteMadeAlone();
      return code;
    }
    return code === 'pens-down' && this.madeAlone.has(id) ? code : undefined;
  }

  /** Whether nothing may be sent as far as is known here; who is told no just before that ends tries again. */
  private isBarred(): boolean {
    const { pensUp, ended } = this.options.situation();
    return ended || (!pensUp && this.actorOfLog?.role === 'student');
  }

  private isPending(operation: Operation): boolean {
    return this.log.pending.includes(operation);
  }

  /** What is here of the log holds an operation already, as the server has said. */
  private settle(operation: Operation): void {
    this.acknowledged(operation.id);
    this.touched.tell(this.log.drop(operation.id));
    this.report();
  }

  private acknowledged(id: string): void {
    this.madeAlone.delete(id);
    this.outbox?.remove(id);
    this.steps.stored(id);
  }

  private giveUp(operation: Operation, error: LiveError): void {
    this.outbox?.remove(operation.id);
    this.givenUp.tell(operation);
    this.steps.refused(operation.id);
    this.touched.tell(this.log.drop(operation.id));
    this.refused.tell(error.message);
    this.report();
  }

  private report(): void {
    this.status.patch({
      waiting: this.log.pending.length,
      canUndo: this.steps.canUndo(this.page),
      canRedo: this.steps.canRedo(this.page),
    });
  }
}

/** What to say of a failure that nobody has foreseen. */
function sentenceOf(error: unknown): string {
  if (error instanceof LiveError) return error.message;
  console.error(error);
  return 'This page could not be brought up to date. Please reload it; what you wrote is kept.';
}

function pause(): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve, RETRY_MS));
}

/** Whether a failure goes away by waiting; anything else is a verdict on the operation. */
function isPassing(code: string): boolean {
  return PASSING.some((passing) => passing === code);
}
