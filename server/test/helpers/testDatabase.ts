import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { Client } from 'pg';
import { Database } from '../../src/storage/database.js';
import { DATABASE_FILE } from '../../src/storage/dataSource.js';
import type { TestServer } from './server.js';

/** Address of a PostgreSQL server for tests, whose databases they may make and drop; unset where tests run on SQLite. */
export const POSTGRES = process.env.TEST_POSTGRES;

/** The address of the database that belongs to a data folder, which is made where it is not there yet. */
export async function databaseFor(data: string): Promise<string | undefined> {
  if (POSTGRES === undefined) return undefined;
  const name = nameOf(data);
  await onServer(async (client) => {
    const { rowCount } = await client.query('SELECT 1 FROM pg_database WHERE datname = $1', [name]);
    if (rowCount === 0) await client.query(`CREATE DATABASE ${name} TEMPLATE template0`);
  });
  const url = new URL(POSTGRES);
  url.pathname = `/${name}`;
  return url.href;
}

export async function dropDatabaseOf(data: string): Promise<void> {
  if (POSTGRES !== undefined)
    await onServer((client) => client.query(`DROP DATABASE IF EXISTS ${nameOf(data)} WITH (FORCE)`));
}

/** The tables of a server's database that are our own. */
export async function tablesOf({ app }: TestServer): Promise<string[]> {
  const rows = await app
    .get(Database)
    .all<{ name: string }>(
      POSTGRES === undefined
        ? `SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%' AND name NOT LIKE 'found_words_%'`
        : `SELECT tablename AS name FROM pg_tables WHERE schemaname = 'public'`,
    );
  return rows.map(({ name }) => name);
}

/** All that a server's database holds, as it lies there, once it has been tidied up. */
export async function allStored(server: TestServer): Promise<string> {
  const database = server.app.get(Database);
  if (POSTGRES === undefined) {
    await database.all('VACUUM');
    await database.all('PRAGMA wal_checkpoint(TRUNCATE)');
    return readFileSync(join(server.data, DATABASE_FILE)).toString('latin1');
  }
  const rows: { row: string }[] = [];
  for (const table of await tablesOf(server))
    rows.push(...(await database.all<{ row: string }>(`SELECT "${table}"::text AS row FROM "${table}"`)));
  return rows.map(({ row }) => row).join('\n');
}

const nameOf = (data: string): string =>
  `test_${createHash('sha256').update(data).digest('hex').slice(0, 16)}`;

async function onServer(work: (client: Client) => Promise<unknown>): Promise<void> {
  const client = new Client({ connectionString: POSTGRES });
  await client.connect();
  try {
    await work(client);
  } finally {
    await client.end();
  }
}
