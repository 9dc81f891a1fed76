import { Injectable } from '@nestjs/common';
import type { Change, LoggedOperation, Mark, Page, UndoEntry } from '@doodla/core';
import { addedBy } from '@doodla/core';
import type { Statement } from './logDatabase.js';
import { FencedError, LogDatabase } from './logDatabase.js';
import type { Append, AppendedOperation, LogHead, Stretch } from './storedLog.js';
import type { MarkRow, OperationRow } from './logRows.js';
import { bodyOf, inverseOf, markOf, operationOf, operationRow, without } from './logRows.js';
import { stillUndoable } from './stillUndoable.js';

/** Own operations that are looked at for what can be undone, and how much of it is told at once. */
const UNDO_LOOKED_AT = 2000;
const UNDO_TOLD = 100;
const MOST_INVERSE_BYTES = 4000;
/** Marks that are asked for by their ids in one query. */
const IDS_AT_ONCE = 200;

/** A log's key, by its id. */
const KEY = '(SELECT key FROM log WHERE id = ?)';
const MARKS = `SELECT mark.id, mark.seq, mark.body, CASE WHEN mark.body IS NULL THEN operation.changes END AS changes
  FROM mark LEFT JOIN operation ON operation.log = mark.log AND operation.seq = mark.seq`;

/** The logs in the database; what has been acknowledged stays. */
@Injectable()
export class LogStore {
  constructor(private readonly database: LogDatabase) {}

  /** Whether something could be written now. */
  isWritable(): Promise<boolean> {
    return this.database.isWritable();
  }

  async head(logId: string): Promise<LogHead> {
    const [log] = await this.database.all<{ seq: number; markCount: number }>(
      `SELECT marks AS "markCount", (SELECT coalesce(max(seq), 0) FROM operation WHERE log = key) AS seq
       FROM log WHERE id = ?`,
      logId,
    );
    if (!log) return { seq: 0, pages: new Map(), markCount: 0 };
    const rows = await this.database.all<{ body: string }>(
      `SELECT body FROM log_page WHERE log = ${KEY}`,
      logId,
    );
    const pages = rows.map(({ body }) => JSON.parse(body) as Page);
    return { ...log, pages: new Map(pages.map((page) => [page.id, page])) };
  }

  /** The last operations that took marks away or changed them, newest first, at most so many. */
  lastChanging(logId: string, most: number): Promise<AppendedOperation[]> {
    return this.operations('inverse IS NOT NULL ORDER BY seq DESC LIMIT ?', logId, most);
  }

  /** An operation by its id. */
  async find(logId: string, id: string): Promise<(AppendedOperation & { pages: string[] }) | undefined> {
    const [row] = await this.database.all<OperationRow>(
      `SELECT * FROM operation WHERE log = ${KEY} AND id = ?`,
      logId,
      id,
    );
    return row && { ...operationOf(row), pages: row.pages.split(' ') };
  }

  /**
   * Stores an operation and what it changes, all of it or nothing. `fence` numbers who has the log in hand: of a lower one than
   * the log has seen nothing is stored. Rejects with FencedError then, with TakenError where its number or id is taken.
   */
  append(logId: string, append: Append, fence: number): Promise<void> {
    return this.database.write(appending(logId, append), fencing(logId, append.markCountChange, fence));
  }

  /** From now on nothing is stored in a log by whoever had it in hand before. Rejects with FencedError where somebody has it after. */
  async fence(logId: string, fence: number): Promise<void> {
    await this.database.write([
      ['UPDATE log SET fence = ? WHERE id = ? AND fence < ?', [fence, logId, fence]],
    ]);
    const [log] = await this.database.all<{ fence: number }>('SELECT fence FROM log WHERE id = ?', logId);
    if (log && log.fence > fence) throw new FencedError(logId);
  }

  /** Marks by their ids; those that are not there are left out. */
  async marks(logId: string, ids: Iterable<string>): Promise<Map<string, Mark>> {
    const wanted = [...ids];
    const found = new Map<string, Mark>();
    for (let i = 0; i < wanted.length; i += IDS_AT_ONCE) {
      const some = wanted.slice(i, i + IDS_AT_ONCE);
      const rows = await this.database.all<MarkRow>(
        `${MARKS} WHERE mark.log = ${KEY} AND mark.id IN (${some.map(() => '?').join(', ')})`,
        logId,
        ...some,
      );
      for (const row of rows) found.set(row.id, markOf(row));
    }
    return found;
  }

  /** Up to `count` marks of a page in the order of their ids, after one of them. */
  async marksOn(logId: string, page: string, after: string, count: number): Promise<Mark[]> {
    const marks = MARKS.replace('FROM mark', `FROM mark ${this.database.dialect.by('mark_by_page')}`);
    const rows = await this.database.all<MarkRow>(
      `${marks} WHERE mark.log = ${KEY} AND mark.page = ? AND mark.id > ? ORDER BY mark.id LIMIT ?`,
      logId,
      page,
      after,
      count,
    );
    return rows.map(markOf);
  }

  /** Ids of the pages that have marks. */
  async writtenPages(logId: string): Promise<string[]> {
    // From page to page along the index, past all the marks of each.
    const rows = await this.database.all<{ page: string }>(
      `WITH RECURSIVE written(page) AS (
         SELECT min(page) FROM mark WHERE log = ${KEY}
         UNION ALL
         SELECT (SELECT min(page) FROM mark WHERE log = ${KEY} AND page > written.page) FROM written
         WHERE written.page IS NOT NULL)
       SELECT page FROM written WHERE page IS NOT NULL`,
      logId,
      logId,
    );
    return rows.map(({ page }) => page);
  }

  /** Operations after number `since`, in order. */
  since(logId: string, since: number): Promise<AppendedOperation[]> {
    return this.operations('seq > ? ORDER BY seq', logId, since);
  }

  /** `count` operations after number `after`, in order. */
  stretch(logId: string, { after, count }: Stretch): Promise<AppendedOperation[]> {
    return this.operations('seq > ? AND seq <= ? ORDER BY seq', logId, after, after + count);
  }

  /** Of `count` operations after number `after` those that concern a page, in order. */
  concerning(logId: string, page: string, { after, count }: Stretch): Promise<AppendedOperation[]> {
    const { instr } = this.database.dialect;
    return this.operations(
      `seq > ? AND seq <= ? AND ${instr}(' ' || pages || ' ', ' ' || ? || ' ') > 0 ORDER BY seq`,
      logId,
      after,
      after + count,
      page,
    );
  }

  /** What a person can still undo, oldest first. */
  async undoable(logId: string, author: string): Promise<UndoEntry[]> {
    const rows = await this.database.all<Pick<OperationRow, 'seq' | 'id' | 'undoes' | 'pages' | 'of_pages'>>(
      `SELECT seq, id, undoes, pages, of_pages FROM operation ${this.database.dialect.by('operation_by_author')}
       WHERE log = ${KEY} AND author = ? ORDER BY seq DESC LIMIT ${UNDO_LOOKED_AT}`,
      logId,
      author,
    );
    const told = stillUndoable(rows.reverse()).slice(-UNDO_TOLD);
    const inverses = await this.shortInverses(
      logId,
      told.map(({ seq }) => seq),
    );
    return told.map(({ seq, id, pages, of_pages }) => {
      const inverse = inverses.get(seq);
      return { id, pages: pages.split(' '), ofPages: of_pages === 1, ...(inverse && { inverse }) };
    });
  }

  /** Forgets logs, with all that is in them. */
  remove(logIds: readonly string[]): Promise<void> {
    return this.database.write(logIds.map((id): Statement => ['DELETE FROM log WHERE id = ?', [id]]));
  }

  /**
   * Takes everything of a student out of a log, what was once done to their marks too, and whose operations they were. The
   * operations keep their numbers. Returns the pages that it was on. Rejects with FencedError as `append` does.
   */
  async forget(logId: string, student: string, fence: number): Promise<string[]> {
    const all = await this.since(logId, 0);
    const ids = new Set<string>();
    for (const { logged, inverse } of all)
      for (const id of addedBy([...logged.operation.changes, ...inverse], student)) ids.add(id);
    const there = await this.marks(logId, ids);
    const rewritten = [
      ...all.flatMap((appended): Statement[] => {
        const rest = without(appended, student, ids);
        if (!rest) return [];
        const values = [rest.author, rest.changes, rest.inverse, logId, appended.logged.seq];
        return [
          [
            `UPDATE operation SET author = ?, changes = ?, inverse = ? WHERE log = ${KEY} AND seq = ?`,
            values,
          ],
        ];
      }),
      ...[...there.keys()].map((id): Statement => [
        `DELETE FROM mark WHERE log = ${KEY} AND id = ?`,
        [logId, id],
      ]),
    ];
    await this.database.write(rewritten, fencing(logId, -there.size, fence));
    return [...new Set([...there.values()].map(({ page }) => page))];
  }

  private async operations(which: string, logId: string, ...values: unknown[]): Promise<AppendedOperation[]> {
    const rows = await this.database.all<OperationRow>(
      `SELECT * FROM operation WHERE log = ${KEY} AND ${which}`,
      logId,
      ...values,
    );
    return rows.map(operationOf);
  }

  /** What takes operations back, of those of which it is short, by their numbers. */
  private async shortInverses(logId: string, numbers: readonly number[]): Promise<Map<number, Change[]>> {
    if (numbers.length === 0) return new Map();
    const rows = await this.database.all<Pick<OperationRow, 'seq' | 'changes' | 'inverse'>>(
      `SELECT seq, inverse, changes FROM operation
       WHERE log = ${KEY} AND length(coalesce(inverse, changes)) <= ${MOST_INVERSE_BYTES}
         AND seq IN (${numbers.map(() => '?').join(', ')})`,
      logId,
      ...numbers,
    );
    return new Map(rows.map((row) => [row.seq, inverseOf(row)]));
  }
}

/** Counts the marks of a log, which it makes where it is the first time; of no row where the log has seen a higher fence. */
function fencing(logId: string, marks: number, fence: number): Statement {
  return [
    `INSERT INTO log (id, marks, fence) VALUES (?, ?, ?) ON CONFLICT (id)
     DO UPDATE SET marks = log.marks + excluded.marks, fence = excluded.fence WHERE log.fence <= excluded.fence`,
    [logId, marks, fence],
  ];
}

/** What storing an operation takes. */
function appending(logId: string, append: Append): Statement[] {
  const { logged, marks, touchedPages } = append;
  const { seq, id, author, at, undoes, pages, of_pages, changes, inverse } = operationRow(append);
  return [
    [
      `INSERT INTO operation (log, seq, id, author, at, undoes, pages, of_pages, changes, inverse)
       VALUES (${KEY}, ?, ?, ?, ?, ?, ?, ?, ?, ?)`,
      [logId, seq, id, author, at, undoes, pages, of_pages, changes, inverse],
    ],
    ...[...marks].map(([mark, now]) => markStatement(logId, mark, now, logged)),
    ...[...touchedPages].map(([page, now]) => pageStatement(logId, page, now)),
  ];
}

function markStatement(
  logId: string,
  id: string,
  mark: Mark | undefined,
  { seq, operation }: LoggedOperation,
): Statement {
  if (!mark) return [`DELETE FROM mark WHERE log = ${KEY} AND id = ?`, [logId, id]];
  return [
    `INSERT INTO mark (log, id, page, seq, body) VALUES (${KEY}, ?, ?, ?, ?)
     ON CONFLICT (log, id) DO UPDATE SET page = excluded.page, seq = excluded.seq, body = excluded.body`,
    [logId, id, mark.page, seq, bodyOf(mark, operation.changes)],
  ];
}

function pageStatement(logId: string, id: string, page: Page | undefined): Statement {
  if (!page) return [`DELETE FROM log_page WHERE log = ${KEY} AND id = ?`, [logId, id]];
  return [
    `INSERT INTO log_page (log, id, body) VALUES (${KEY}, ?, ?)
     ON CONFLICT (log, id) DO UPDATE SET body = excluded.body`,
    [logId, id, JSON.stringify(page)],
  ];
}
