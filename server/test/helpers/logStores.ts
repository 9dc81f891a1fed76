import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { DataSource } from 'typeorm';
import { postgresOptions } from '../../src/storage/dataSource.js';
import { PostgresLogDatabase } from '../../src/storage/postgresLogDatabase.js';
import { TABLES } from '../../src/subjects.js';
import { aStore } from './memoryStore.js';
import { databaseFor, dropDatabaseOf } from './testDatabase.js';
import { LogStore } from '../../src/storage/logStore.js';

/** A store of logs in the database that the tests run on, and what closes it. */
export async function aStoreOfLogs(): Promise<{ store: LogStore; close(): Promise<void> }> {
  const folder = mkdtempSync(join(tmpdir(), 'doodla-logs-'));
  const url = await databaseFor(folder);
  if (url === undefined) return { store: aStore(), close: () => Promise.resolve() };
  const tables = await new DataSource(postgresOptions(url, TABLES)).initialize();
  await tables.destroy();
  const database = new PostgresLogDatabase(url);
  const close = async () => {
    await database.onApplicationShutdown();
    await dropDatabaseOf(folder);
  };
  return { store: new LogStore(database), close };
}
