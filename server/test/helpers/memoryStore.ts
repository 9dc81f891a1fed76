import type Database from 'better-sqlite3';
import { LogStore } from '../../src/storage/logStore.js';
import { FENCE } from '../../src/processes/processes.migration.js';
import { LOG_TABLES } from '../../src/storage/logTables.js';
import { SqliteLogDatabase } from '../../src/storage/sqliteLogDatabase.js';

/** A store of logs in memory. */
export function aStore(): LogStore {
  const logs = new SqliteLogDatabase(':memory:');
  (logs as unknown as { database: Database.Database }).database.exec([...LOG_TABLES, FENCE].join(';'));
  return new LogStore(logs);
}
