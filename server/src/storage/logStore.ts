import type { OnApplicationShutdown } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import type { Change, LoggedOperation, Mark, Page, UndoEntry, WireChange, WireMark } from '@doodla/core';
import {
  addedBy,
  concernsPages,
  FORGOTTEN,
  packChanges,
  packMark,
  unpackChanges,
  unpackMark,
  withoutMarks,
} from '@doodla/core';
import type { Statement } from 'better-sqlite3';
import Database from 'better-sqlite3';
import { DataSource } from 'typeorm';
import { databasePath } from './dataSource.js';
import type { DataFolder } from './dataFolder.js';
import { GroupCommit, isBusy } from './groupCommit.js';
import { packJson, unpackJson } from './packedJson.js';

/** A stored operation with what takes it back. */
export interface AppendedOperation {
  logged: LoggedOperation;
  inverse: Change[];
}

/** An operation to be stored, with what becomes of what it touches. */
export interface Append extends AppendedOperation {
  /** Ids of the pages that it concerns. */
  pages: string[];
  /** Touched marks as they are afterwards; undefined for those that are gone. */
  marks: ReadonlyMap<string, Mark | undefined>;
  /** How many marks more there are afterwards. */
  markCountChange: number;
  touchedPages: ReadonlyMap<string, Page | undefined>;
}

/** A part of a log: so many operations after a number. */
export interface Stretch {
  after: number;
  count: number;
}

/** What is known of a log without its marks. */
export interface LogHead {
  seq: number;
  pages: Map<string, Page>;
  markCount: number;
}

interface OperationRow {
  seq: number;
  id: string;
  author: string;
  at: number;
  undoes: string | null;
  pages: string;
  of_pages: number;
  changes: Buffer;
  inverse: Buffer | null;
}

interface MarkRow {
  id: string;
  seq: number;
  body: Buffer | null;
}

/** Own operations that are looked at for what can be undone, and how much of it is told at once. */
const UNDO_LOOKED_AT = 2000;
const UNDO_TOLD = 100;
const MOST_INVERSE_BYTES = 4000;
/** Marks of an operation with more changes have a body of their own, so that it is not unpacked for each. */
const MOST_POINTED_TO = 20;

/**
 * The logs in the database: plain statements on a connection of their own, so that no other transaction can
 * take an acknowledged operation back with it.
 */
@Injectable()
export class LogStore implements OnApplicationShutdown {
  private readonly database: Database.Database;
  private readonly commits: GroupCommit;
  private folder: DataFolder | undefined;
  private readonly statements = new Map<string, Statement>();
  /** Keys of logs by id. */
  private readonly keys = new Map<string, number>();

  /** The main connection comes first: it brings the tables up to date. */
  constructor(main: DataSource) {
    this.database = new Database(databasePath(main));
    for (const pragma of [
      'journal_mode = WAL',
      'foreign_keys = ON',
      'synchronous = FULL',
      'secure_delete = ON',
      'busy_timeout = 0',
    ])
      this.database.pragma(pragma);
    this.commits = new GroupCommit(this.database);
  }

  onApplicationShutdown(): void {
    this.database.close();
    this.folder?.close();
  }

  /** Notes in database and folder that they belong together; the folder is let go of at the end. */
  settle(folder: DataFolder): void {
    this.folder = folder;
    folder.settle(this.database);
  }

  /** Whether something could be written now. */
  isWritable(): boolean {
    try {
      this.database.exec('BEGIN IMMEDIATE');
      this.database.exec('ROLLBACK');
      return true;
    } catch (error) {
      // Somebody else is writing, so it can be written to.
      return isBusy(error);
    }
  }

  head(logId: string): LogHead {
    const key = this.keyOf(logId);
    if (key === undefined) return { seq: 0, pages: new Map(), markCount: 0 };
    const { seq } = this.on('SELECT coalesce(max(seq), 0) AS seq FROM operation WHERE log = ?').get(key) as {
      seq: number;
    };
    const { markCount } = this.on('SELECT marks AS markCount FROM log WHERE key = ?').get(key) as {
      markCount: number;
    };
    const rows = this.on('SELECT body FROM log_page WHERE log = ?').all(key) as { body: string }[];
    const pages = rows.map(({ body }) => JSON.parse(body) as Page);
    return { seq, markCount, pages: new Map(pages.map((page) => [page.id, page])) };
  }

  /** The last operations that took marks away or changed them, newest first, at most so many. */
  lastChanging(logId: string, most: number): AppendedOperation[] {
    const key = this.keyOf(logId);
    if (key === undefined) return [];
    const rows = this.on(
      'SELECT * FROM operation WHERE log = ? AND inverse IS NOT NULL ORDER BY seq DESC LIMIT ?',
    ).all(key, most) as OperationRow[];
    return rows.map(operationOf);
  }

  /** An operation by its id. */
  find(logId: string, id: string): (AppendedOperation & { pages: string[] }) | undefined {
    const key = this.keyOf(logId);
    const row =
      key && (this.on('SELECT * FROM operation WHERE log = ? AND id = ?').get(key, id) as OperationRow);
    return row ? { ...operationOf(row), pages: row.pages.split(' ') } : undefined;
  }

  /** Stores an operation and what it changes, all of it or nothing. Rejects where its number or id is taken. */
  append(logId: string, append: Append): Promise<void> {
    return this.commits.run(() => this.write(logId, append));
  }

  /** Marks by their ids; those that are not there are left out. */
  marks(logId: string, ids: Iterable<string>): Map<string, Mark> {
    const key = this.keyOf(logId);
    const found = new Map<string, Mark>();
    if (key === undefined) return found;
    for (const id of ids) {
      const row = this.on('SELECT id, seq, body FROM mark WHERE log = ? AND id = ?').get(key, id) as MarkRow;
      if (row) found.set(id, this.markOf(key, row));
    }
    return found;
  }

  /** Up to `count` marks of a page in the order of their ids, after one of them. */
  marksOn(logId: string, page: string, after: string, count: number): Mark[] {
    const key = this.keyOf(logId);
    if (key === undefined) return [];
    const rows = this.on(
      'SELECT id, seq, body FROM mark INDEXED BY mark_by_page WHERE log = ? AND page = ? AND id > ? ORDER BY id LIMIT ?',
    ).all(key, page, after, count) as MarkRow[];
    return rows.map((row) => this.markOf(key, row));
  }

  /** Ids of the pages that have marks. */
  writtenPages(logId: string): string[] {
    const key = this.keyOf(logId);
    if (key === undefined) return [];
    // From page to page along the index, past all the marks of each.
    const rows = this.on(
      `WITH RECURSIVE written(page) AS (
         SELECT min(page) FROM mark WHERE log = ?
         UNION ALL
         SELECT (SELECT min(page) FROM mark WHERE log = ? AND page > written.page) FROM written
         WHERE written.page IS NOT NULL)
       SELECT page FROM written WHERE page IS NOT NULL`,
    ).all(key, key) as { page: string }[];
    return rows.map(({ page }) => page);
  }

  /** Operations after number `since`, in order. */
  since(logId: string, since: number): AppendedOperation[] {
    const key = this.keyOf(logId);
    const rows = this.on('SELECT * FROM operation WHERE log = ? AND seq > ? ORDER BY seq').all(
      key ?? -1,
      since,
    ) as OperationRow[];
    return rows.map(operationOf);
  }

  /** `count` operations after number `after`, in order. */
  stretch(logId: string, { after, count }: Stretch): AppendedOperation[] {
    const rows = this.on('SELECT * FROM operation WHERE log = ? AND seq > ? AND seq <= ? ORDER BY seq').all(
      this.keyOf(logId) ?? -1,
      after,
      after + count,
    ) as OperationRow[];
    return rows.map(operationOf);
  }

  /** Of `count` operations after number `after` those that concern a page, in order. */
  concerning(logId: string, page: string, { after, count }: Stretch): AppendedOperation[] {
    const rows = this.on(
      `SELECT * FROM operation WHERE log = ? AND seq > ? AND seq <= ?
       AND instr(' ' || pages || ' ', ' ' || ? || ' ') > 0 ORDER BY seq`,
    ).all(this.keyOf(logId) ?? -1, after, after + count, page) as OperationRow[];
    return rows.map(operationOf);
  }

  /** What a person can still undo, oldest first. */
  undoable(logId: string, author: string): UndoEntry[] {
    const key = this.keyOf(logId);
    const rows = this.on(
      `SELECT seq, id, undoes, pages, of_pages FROM operation INDEXED BY operation_by_author
       WHERE log = ? AND author = ? ORDER BY seq DESC LIMIT ${UNDO_LOOKED_AT}`,
    ).all(key ?? -1, author) as Omit<OperationRow, 'changes' | 'inverse'>[];
    return stillUndoable(rows.reverse())
      .slice(-UNDO_TOLD)
      .map((row) => ({
        id: row.id,
        pages: row.pages.split(' '),
        ofPages: row.of_pages === 1,
        ...this.shortInverse(key!, row.seq),
      }));
  }

  /** Forgets logs, with all that is in them. */
  remove(logIds: readonly string[]): Promise<void> {
    return this.commits.run(() => {
      for (const id of logIds) {
        this.on('DELETE FROM log WHERE id = ?').run(id);
        this.keys.delete(id);
      }
    });
  }

  private write(
    logId: string,
    { logged, inverse, pages, marks, markCountChange, touchedPages }: Append,
  ): void {
    const key = this.keyOf(logId) ?? this.makeKey(logId);
    const { seq, author, at, operation } = logged;
    const { changes } = operation;
    const adds = new Set(changes.flatMap((change) => (change.do === 'add' ? [change.mark] : [])));
    this.on(
      `INSERT INTO operation (log, seq, id, author, at, undoes, pages, of_pages, changes, inverse)
       VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
    ).run(
      key,
      seq,
      operation.id,
      author,
      at,
      operation.undoes ?? null,
      pages.join(' '),
      concernsPages(changes) ? 1 : 0,
      packJson(packChanges(changes)),
      adds.size === changes.length ? null : packJson(packChanges(inverse)),
    );
    if (markCountChange !== 0)
      this.on('UPDATE log SET marks = marks + ? WHERE key = ?').run(markCountChange, key);
    for (const [id, mark] of marks) {
      if (!mark) this.on('DELETE FROM mark WHERE log = ? AND id = ?').run(key, id);
      else
        this.on('INSERT OR REPLACE INTO mark (log, id, page, seq, body) VALUES (?, ?, ?, ?, ?)').run(
          key,
          id,
          mark.page,
          seq,
          adds.has(mark) && changes.length <= MOST_POINTED_TO ? null : packJson(packMark(mark)),
        );
    }
    for (const [id, page] of touchedPages) {
      if (!page) this.on('DELETE FROM log_page WHERE log = ? AND id = ?').run(key, id);
      else
        this.on('INSERT OR REPLACE INTO log_page (log, id, body) VALUES (?, ?, ?)').run(
          key,
          id,
          JSON.stringify(page),
        );
    }
  }

  /**
   * Takes everything of a student out of a log, what was once done to their marks too, and whose operations they were. The
   * operations keep their numbers. Returns the pages that it was on.
   */
  async forget(logId: string, student: string): Promise<string[]> {
    const key = this.keyOf(logId);
    if (key === undefined) return [];
    const ids = new Set<string>();
    for (const { logged, inverse } of this.since(logId, 0))
      for (const id of addedBy([...logged.operation.changes, ...inverse], student)) ids.add(id);
    const pages = new Set<string>();
    await this.commits.run(() => {
      for (const append of this.since(logId, 0)) this.rewrite(key, append, student, ids);
      for (const id of ids) {
        const row = this.on('SELECT page FROM mark WHERE log = ? AND id = ?').get(key, id) as
          { page: string } | undefined;
        if (!row) continue;
        pages.add(row.page);
        this.on('DELETE FROM mark WHERE log = ? AND id = ?').run(key, id);
        this.on('UPDATE log SET marks = marks - 1 WHERE key = ?').run(key);
      }
    });
    return [...pages];
  }

  private rewrite(
    key: number,
    { logged, inverse }: AppendedOperation,
    student: string,
    ids: ReadonlySet<string>,
  ): void {
    const { seq, author, operation } = logged;
    const changes = withoutMarks(operation.changes, ids);
    const back = withoutMarks(inverse, ids);
    const isSame = changes.length === operation.changes.length && back.length === inverse.length;
    if (isSame && author !== student) return;
    this.on('UPDATE operation SET author = ?, changes = ?, inverse = ? WHERE log = ? AND seq = ?').run(
      author === student ? FORGOTTEN : author,
      packJson(packChanges(changes)),
      packJson(packChanges(back)),
      key,
      seq,
    );
  }

  private markOf(key: number, { id, seq, body }: MarkRow): Mark {
    if (body) return unpackMark(unpackJson<WireMark>(body));
    const row = this.on('SELECT changes FROM operation WHERE log = ? AND seq = ?').get(
      key,
      seq,
    ) as OperationRow;
    const changes = unpackJson<WireChange[]>(row.changes);
    const added = changes.findLast((change) => change.do === 'add' && change.mark.id === id);
    return unpackMark((added as Extract<WireChange, { do: 'add' }>).mark);
  }

  private shortInverse(key: number, seq: number): { inverse?: Change[] } {
    const row = this.on(
      `SELECT inverse, changes FROM operation
       WHERE log = ? AND seq = ? AND length(coalesce(inverse, changes)) <= ${MOST_INVERSE_BYTES}`,
    ).get(key, seq) as OperationRow | undefined;
    return row ? { inverse: inverseOf(row) } : {};
  }

  private keyOf(logId: string): number | undefined {
    const known = this.keys.get(logId);
    if (known !== undefined) return known;
    const row = this.on('SELECT key FROM log WHERE id = ?').get(logId) as { key: number } | undefined;
    // What is not committed yet may still be taken back.
    if (row && !this.database.inTransaction) this.keys.set(logId, row.key);
    return row?.key;
  }

  private makeKey(logId: string): number {
    return Number(this.on('INSERT INTO log (id) VALUES (?)').run(logId).lastInsertRowid);
  }

  private on(sql: string): Statement {
    let statement = this.statements.get(sql);
    if (!statement) {
      statement = this.database.prepare(sql);
      this.statements.set(sql, statement);
    }
    return statement;
  }
}

function operationOf(row: OperationRow): AppendedOperation {
  const { seq, author, at, id, undoes } = row;
  const changes = unpackChanges(unpackJson<WireChange[]>(row.changes));
  const logged = { seq, author, at, operation: { id, changes, ...(undoes !== null && { undoes }) } };
  return { logged, inverse: inverseOf(row) };
}

/** An inverse that only takes away what was added is not stored. */
function inverseOf({ changes, inverse }: Pick<OperationRow, 'changes' | 'inverse'>): Change[] {
  if (inverse) return unpackChanges(unpackJson<WireChange[]>(inverse));
  const adds = unpackJson<Extract<WireChange, { do: 'add' }>[]>(changes);
  return adds.map(({ mark }): Change => ({ do: 'remove', mark: mark.id })).reverse();
}

interface OwnOperation {
  id: string;
  undoes: string | null;
}

/**
 * What is left to undo after a person's own operations, oldest first. An undo takes its operation off the
 * list; a redo, which takes back an undo, is itself something to undo. What undoes something older than the
 * list begins with is taken for an undo.
 */
export function stillUndoable<Row extends OwnOperation>(own: readonly Row[]): Row[] {
  const undoing = new Map<string, boolean>();
  const entries: Row[] = [];
  for (const row of own) {
    const isUndo = row.undoes !== null && undoing.get(row.undoes) !== true;
    undoing.set(row.id, isUndo);
    if (!isUndo) entries.push(row);
    const undone = entries.findLastIndex(({ id }) => id === row.undoes);
    if (isUndo && undone >= 0) entries.splice(undone, 1);
  }
  return entries;
}
