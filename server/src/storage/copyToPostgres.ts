import Database from 'better-sqlite3';
import { createHash } from 'node:crypto';
import { join } from 'node:path';
import type { QueryRunner } from 'typeorm';
import { DataSource } from 'typeorm';
import { DataFolder } from './dataFolder.js';
import { DATABASE_FILE, databaseOptions, postgresOptions } from './dataSource.js';
import { NAMES } from './migrations/postgresBase.js';
import type { Tables } from './tables.js';

/** Thrown where nothing can be copied; the message says why and what to do. */
export class CopyError extends Error {
  override name = 'CopyError';
}

/** What was copied of a table, as both databases say. */
export interface CopiedTable {
  table: string;
  rows: number;
  /** Of all rows, whatever their order; hexadecimal. */
  digest: string;
}

type Row = Record<string, unknown>;

/** Words are found anew at the first start. */
const LEFT_OUT = new Set(['found_page', 'found_words']);
/** Schools come first, which all others are of; what came after the base comes last. */
const TABLES = [
  'tenant',
  ...NAMES.filter((name) => !LEFT_OUT.has(name)),
  ...['school_deed', 'school_cleared', 'operator', 'operator_session'],
];
/** What every database has from its beginning. */
const FIRST_ROWS = new Map([['tenant', 1]]);
/** Columns that are counted on by the database. */
const COUNTED = [
  ['log', 'key'],
  ['class_turn', 'id'],
] as const;
const ROWS_AT_ONCE = 200;

/**
 * Copies a school from the SQLite file of a data folder whose server does not run into an empty PostgreSQL database: all or
 * nothing, and compared afterwards, row by row. Stored files stay where they are. Throws CopyError or StartError.
 */
export async function copyToPostgres(data: string, url: string, tables: Tables): Promise<CopiedTable[]> {
  const folder = new DataFolder(data);
  folder.open(true);
  try {
    // Brings the tables of an earlier version up to date first.
    await (await new DataSource(databaseOptions(data, tables)).initialize()).destroy();
    const from = new Database(join(data, DATABASE_FILE), { readonly: true });
    const to = await new DataSource(postgresOptions(url, tables)).initialize();
    try {
      await refuseUnlessEmpty(to);
      await to.transaction(async ({ queryRunner }) => {
        for (const table of FIRST_ROWS.keys()) await queryRunner!.query(`DELETE FROM ${table}`);
        for (const table of TABLES) await copyTable(from, queryRunner!, table);
        for (const [table, column] of COUNTED) await countOn(queryRunner!, table, column);
      });
      return await compared(from, to);
    } finally {
      from.close();
      await to.destroy();
    }
  } finally {
    folder.close();
  }
}

async function refuseUnlessEmpty(to: DataSource): Promise<void> {
  for (const table of TABLES) {
    const rows = await to.query<unknown[]>(`SELECT 1 FROM ${table} LIMIT 2`);
    if (rows.length > (FIRST_ROWS.get(table) ?? 0))
      throw new CopyError(
        `The PostgreSQL database is not empty: there is something in “${table}”. Nothing was changed. Make a new database and give its address.`,
      );
  }
}

async function copyTable(from: Database.Database, to: QueryRunner, table: string): Promise<void> {
  const flags = await flagsOf(to, table);
  let some: Row[] = [];
  const put = async () => {
    if (some.length > 0) await insert(to, table, some);
    some = [];
  };
  for (const row of rowsOf(from, table)) {
    for (const flag of flags) row[flag] = row[flag] === 1;
    some.push(row);
    if (some.length >= ROWS_AT_ONCE) await put();
  }
  await put();
}

/** The rows of a table; folders after those that they lie in. */
function* rowsOf(from: Database.Database, table: string): Iterable<Row> {
  const order =
    table === 'lesson_folder'
      ? `WITH RECURSIVE sorted AS (
           SELECT *, 0 AS depth FROM lesson_folder WHERE parent_id IS NULL
           UNION ALL SELECT lesson_folder.*, depth + 1 FROM lesson_folder JOIN sorted ON lesson_folder.parent_id = sorted.id)
         SELECT id, teacher_id, parent_id, title, created_at FROM sorted ORDER BY depth`
      : `SELECT * FROM ${table}`;
  yield* from.prepare(order).iterate() as Iterable<Row>;
}

async function insert(to: QueryRunner, table: string, rows: readonly Row[]): Promise<void> {
  const columns = Object.keys(rows[0]!);
  let n = 0;
  const places = rows.map(() => `(${columns.map(() => `$${(n += 1)}`).join(', ')})`);
  await to.query(
    `INSERT INTO ${table} (${columns.map((column) => `"${column}"`).join(', ')}) VALUES ${places.join(', ')}`,
    rows.flatMap((row) => columns.map((column) => row[column])),
  );
}

/** Columns that are yes or no there, and 1 or 0 in SQLite. */
async function flagsOf(to: QueryRunner, table: string): Promise<string[]> {
  const rows = (await to.query(
    `SELECT column_name AS name FROM information_schema.columns
     WHERE table_schema = current_schema() AND table_name = $1 AND data_type = 'boolean'`,
    [table],
  )) as { name: string }[];
  return rows.map(({ name }) => name);
}

async function countOn(to: QueryRunner, table: string, column: string): Promise<void> {
  await to.query(
    `SELECT setval(pg_get_serial_sequence('${table}', '${column}'), coalesce(max("${column}"), 0) + 1, false) FROM ${table}`,
  );
}

/** What both have of each table. Throws CopyError where it is not the same. */
async function compared(from: Database.Database, to: DataSource): Promise<CopiedTable[]> {
  const all: CopiedTable[] = [];
  for (const table of TABLES) {
    const here = digestOf(rowsOf(from, table));
    const there = digestOf(await to.query<Row[]>(`SELECT * FROM ${table}`));
    if (here.rows !== there.rows || here.digest !== there.digest)
      throw new CopyError(
        `“${table}” is not the same in both: ${here.rows} rows here, ${there.rows} there. Do not use the copy; make a new database and try again.`,
      );
    all.push({ table, ...here });
  }
  return all;
}

/** Of rows in whatever order: how many, and the exclusive or of the hash of each (SHA-256). No row is there twice. */
export function digestOf(rows: Iterable<Row>): Omit<CopiedTable, 'table'> {
  const sum = Buffer.alloc(32);
  let count = 0;
  for (const row of rows) {
    const columns = Object.keys(row).sort();
    const text = JSON.stringify(columns.map((column) => [column, plain(row[column])]));
    const hash = createHash('sha256').update(text).digest();
    for (let i = 0; i < sum.length; i++) sum[i]! ^= hash[i]!;
    count += 1;
  }
  return { rows: count, digest: sum.toString('hex') };
}

/** A value as both databases mean it. */
function plain(value: unknown): unknown {
  if (Buffer.isBuffer(value)) return value.toString('base64');
  return typeof value === 'boolean' ? Number(value) : value;
}
