import type { OnModuleDestroy } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { Change, LoggedOperation, LogState, Operation, RefusalCode, UndoEntry } from '@doodla/core';
import {
  applicableChanges,
  applyChanges,
  emptyState,
  invertChanges,
  Refusal,
  snapshotOf,
  stateOf,
} from '@doodla/core';
import { MoreThan, Repository } from 'typeorm';
import { OpenLog } from './openLog.js';
import { StoredOperation } from './operation.entity.js';
import { StoredSnapshot } from './snapshot.entity.js';
import { undoableOf } from './undoable.js';

/** Operations after which a new snapshot is stored. */
const SNAPSHOT_EVERY = 200;
/** How long an unused log stays in memory. */
const IDLE_MS = 10 * 60_000;
/** Own operations that are looked at for what can be undone. */
const UNDO_DEPTH = 200;

export interface AppendOptions {
  /** Says whether the operation is allowed, given the state before it. */
  judge?(operation: Operation, state: LogState): RefusalCode | undefined;
  /** The connection that it came by. */
  from?: string;
  /** When it happened, for logs that are made of earlier events. */
  at?: number;
}

/** A stored operation with what takes it back. */
export interface AppendedOperation {
  logged: LoggedOperation;
  inverse: Change[];
}

type AppendListener = (
  logId: string,
  appended: AppendedOperation,
  state: LogState,
  from: string | undefined,
) => void;

/** The logs of operations: numbered, stored before acknowledged, each operation once. */
@Injectable()
export class LogsService implements OnModuleDestroy {
  private readonly logs = new Map<string, Promise<OpenLog>>();
  private listener: AppendListener = () => undefined;
  private readonly sweeper = setInterval(() => void this.closeIdle(), IDLE_MS);

  constructor(
    @InjectRepository(StoredOperation) private readonly operations: Repository<StoredOperation>,
    @InjectRepository(StoredSnapshot) private readonly snapshots: Repository<StoredSnapshot>,
  ) {
    this.sweeper.unref();
  }

  /** Sets who tells others of operations, once they are stored and applied, in the order of their numbers. */
  onAppended(listener: AppendListener): void {
    this.listener = listener;
  }

  async onModuleDestroy(): Promise<void> {
    clearInterval(this.sweeper);
    for (const log of this.logs.values()) await this.storeSnapshot(await log);
  }

  /** A log with its state; one that was never written to is empty. */
  open(id: string): Promise<OpenLog> {
    let log = this.logs.get(id);
    if (!log) {
      log = this.load(id);
      this.logs.set(id, log);
      log.catch(() => this.logs.delete(id));
    }
    return log;
  }

  /**
   * Judges, numbers, stores, applies and tells of an operation, in this order. One that is already
   * there is left at that. Throws Refusal.
   */
  async append(
    logId: string,
    author: string,
    operation: Operation,
    { judge, from, at }: AppendOptions = {},
  ): Promise<void> {
    const log = await this.open(logId);
    return log.inTurn(async () => {
      if (await this.operations.existsBy({ logId, id: operation.id })) return;
      const changes = operation.undoes
        ? await this.inverseOf(log, author, operation.undoes)
        : operation.changes;
      const full: Operation = { ...operation, changes };
      const reason = judge?.(full, log.state);
      if (reason) throw new Refusal(reason);
      const inverse = invertChanges(log.state, changes);
      const logged: LoggedOperation = { seq: log.seq + 1, author, at: at ?? Date.now(), operation: full };
      await this.operations.insert(toStored(logId, logged, inverse));
      log.seq = logged.seq;
      applyChanges(log.state, changes);
      if (log.seq - log.snapshotSeq >= SNAPSHOT_EVERY) await this.storeSnapshot(log);
      this.listener(logId, { logged, inverse }, log.state, from);
    });
  }

  /** Stored operations after number `since`, in order. */
  async since(logId: string, since: number): Promise<AppendedOperation[]> {
    const rows = await this.operations.find({
      where: { logId, seq: MoreThan(since) },
      order: { seq: 'ASC' },
    });
    return rows.map((row) => ({ logged: toLogged(row), inverse: row.inverse }));
  }

  /** What a person can still undo, oldest first. */
  async undoable(logId: string, author: string): Promise<UndoEntry[]> {
    const rows = await this.operations.find({
      where: { logId, author },
      order: { seq: 'DESC' },
      take: UNDO_DEPTH,
    });
    return undoableOf(rows.reverse());
  }

  private async inverseOf(log: OpenLog, author: string, id: string): Promise<Change[]> {
    const undone = await this.operations.findOneBy({ logId: log.id, id });
    if (!undone) throw new Refusal('no-such-mark');
    if (undone.author !== author) throw new Refusal('not-yours');
    return applicableChanges(undone.inverse, log.state);
  }

  private async load(id: string): Promise<OpenLog> {
    const snapshot = await this.snapshots.findOneBy({ logId: id });
    const state = snapshot ? stateOf(snapshot.body) : emptyState();
    const from = snapshot?.seq ?? 0;
    let seq = from;
    for (const { logged } of await this.since(id, from)) {
      applyChanges(state, logged.operation.changes);
      seq = logged.seq;
    }
    return new OpenLog(id, state, seq, from);
  }

  private async storeSnapshot(log: OpenLog): Promise<void> {
    if (log.seq === log.snapshotSeq) return;
    await this.snapshots.save({ logId: log.id, seq: log.seq, body: snapshotOf(log.state, log.seq) });
    log.snapshotSeq = log.seq;
  }

  private async closeIdle(): Promise<void> {
    for (const [id, opening] of this.logs) {
      const log = await opening;
      if (Date.now() - log.usedAt < IDLE_MS) continue;
      await log.inTurn(() => this.storeSnapshot(log));
      this.logs.delete(id);
    }
  }
}

function toLogged({ seq, author, at, id, changes, undoes }: StoredOperation): LoggedOperation {
  return { seq, author, at, operation: { id, changes, ...(undoes && { undoes }) } };
}

function toStored(
  logId: string,
  { seq, author, at, operation }: LoggedOperation,
  inverse: Change[],
): StoredOperation {
  return {
    logId,
    seq,
    id: operation.id,
    author,
    at,
    undoes: operation.undoes ?? null,
    changes: operation.changes,
    inverse,
  };
}
