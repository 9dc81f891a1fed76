import type { Change, LogState, LoggedOperation, Page } from '@doodla/core';
import { applyChanges, concernsPages, emptyState, packChanges, packMark, pagesConcerned } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import type { MigrationInterface, QueryRunner } from 'typeorm';
import { LOG_TABLES } from '../logTables.js';
import { packJson } from '../packedJson.js';

interface OldOperation {
  seq: number;
  id: string;
  author: string;
  at: number;
  undoes: string | null;
  changes: string;
  inverse: string;
}

/** Pages were the lesson's alone; those of one class said whose they are. */
type OldPage = Page & { sitting?: string };

/** State is kept by page and mark instead of as a whole, and each class has its pages in its own log. */
export class LogsByPage1700000000007 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE operation RENAME TO old_operation');
    await runner.query('DROP INDEX operation_by_author');
    for (const table of LOG_TABLES) await runner.query(table);
    const sittings = await rowsOf<{ id: string; lesson: string }>(
      runner,
      'SELECT id, lesson_id AS lesson FROM sitting',
    );
    const lessonOf = new Map(sittings.map(({ id, lesson }) => [id, lesson]));
    const logs = await rowsOf<{ id: string }>(runner, 'SELECT DISTINCT log_id AS id FROM old_operation');
    const pages = new Map<string, OldPage[]>();
    // Lessons first: classes take their pages from them.
    for (const { id } of logs.filter(({ id }) => !lessonOf.has(id))) pages.set(id, await convert(runner, id));
    for (const { id, lesson } of sittings) await convert(runner, id, pages.get(lesson) ?? []);
    await runner.query('DROP TABLE old_operation');
    await runner.query('DROP TABLE snapshot');
  }

  down(): Promise<void> {
    throw new Error(
      'What was written since then cannot be put into the older tables. Restore a backup instead.',
    );
  }
}

async function rowsOf<Row>(runner: QueryRunner, sql: string, values?: unknown[]): Promise<Row[]> {
  return (await runner.query(sql, values)) as Row[];
}

/** Writes one log into the new tables. With `lessonPages` it is a class's. Returns its pages. */
async function convert(runner: QueryRunner, id: string, lessonPages?: OldPage[]): Promise<OldPage[]> {
  await runner.query('INSERT INTO log (id) VALUES (?)', [id]);
  const [log] = await rowsOf<{ key: number }>(runner, 'SELECT key FROM log WHERE id = ?', [id]);
  const { key } = log!;
  const state = emptyState();
  const rows = await rowsOf<OldOperation>(
    runner,
    'SELECT * FROM old_operation WHERE log_id = ? ORDER BY seq',
    [id],
  );
  for (const row of rows) {
    const { seq, author, at, undoes } = row;
    const changes = JSON.parse(row.changes) as Change[];
    const operation = { id: row.id, changes, ...(undoes !== null && { undoes }) };
    await store(runner, key, state, { seq, author, at, operation }, JSON.parse(row.inverse) as Change[]);
  }
  const all: OldPage[] = [...state.pages.values()];
  if (lessonPages) {
    const own = lessonPages
      .filter(({ sitting }) => sitting === undefined || sitting === id)
      .map(withoutClass);
    const changes = own.map((page): Change => ({ do: 'addPage', page }));
    const seq = (rows.at(-1)?.seq ?? 0) + 1;
    const operation = { id: randomUUID(), changes };
    if (own.length > 0)
      await store(runner, key, state, { seq, author: 'server', at: Date.now(), operation }, []);
  } else {
    for (const { id: page, sitting } of all) if (sitting !== undefined) state.pages.delete(page);
  }
  await storeState(runner, key, state, rows.at(-1)?.seq ?? 0);
  return all;
}

async function store(
  runner: QueryRunner,
  key: number,
  state: LogState,
  { seq, author, at, operation }: LoggedOperation,
  inverse: Change[],
): Promise<void> {
  const { id, changes, undoes = null } = operation;
  const pages = pagesConcerned(changes, state).join(' ');
  applyChanges(state, changes);
  await runner.query('INSERT INTO operation VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?, ?)', [
    key,
    seq,
    id,
    author,
    at,
    undoes,
    pages,
    concernsPages(changes) ? 1 : 0,
    packJson(packChanges(changes)),
    packJson(packChanges(inverse)),
  ]);
}

async function storeState(runner: QueryRunner, key: number, state: LogState, seq: number): Promise<void> {
  for (const page of state.pages.values())
    await runner.query('INSERT INTO log_page VALUES (?, ?, ?)', [key, page.id, JSON.stringify(page)]);
  await runner.query('UPDATE log SET marks = ? WHERE key = ?', [state.marks.size, key]);
  for (const mark of state.marks.values())
    await runner.query('INSERT INTO mark VALUES (?, ?, ?, ?, ?)', [
      key,
      mark.id,
      mark.page,
      seq,
      packJson(packMark(mark)),
    ]);
}

function withoutClass(page: OldPage): Page {
  const own = { ...page };
  delete own.sitting;
  return own;
}
