import type { DataSource, DataSourceOptions } from 'typeorm';
import { join } from 'node:path';
import { types } from 'pg';
import type { Settings } from '../settings/settings.js';
import { SQLITE } from '../settings/settings.js';
import type { Tables } from './tables.js';
import { FirstLesson1700000000001 } from './migrations/1-first-lesson.js';
import { Pictures1700000000002 } from './migrations/2-pictures.js';
import { Shelf1700000000003 } from './migrations/3-shelf.js';
import { Notes1700000000004 } from './migrations/4-notes.js';
import { Recordings1700000000005 } from './migrations/5-recordings.js';
import { Teaching1700000000006 } from './migrations/6-teaching.js';
import { LogsByPage1700000000007 } from './migrations/7-logs-by-page.js';
import { Belongings1700000000008 } from './migrations/8-belongings.js';
import { ReadWords1700000000009 } from './migrations/9-read-words.js';
import { DoorsAndRules1700000000010 } from './migrations/10-doors-and-rules.js';
import { Polls1700000000011 } from './migrations/11-polls.js';
import { IdeasAndWords1700000000012 } from './migrations/12-ideas-and-words.js';
import { Finding1700000000013 } from './migrations/13-finding.js';
import { Privacy1700000000014 } from './migrations/14-privacy.js';
import { Links1700000000015 } from './migrations/15-links.js';
import { School1700000000016 } from './migrations/16-school.js';
import { ShelfThings1700000000017 } from './migrations/17-shelf-things.js';
import { SchoolSettings1700000000018 } from './migrations/18-school-settings.js';
import { Teams1700000000019 } from './migrations/19-teams.js';
import { ClassCovers1700000000020 } from './migrations/20-class-covers.js';
import { ClassTurns1700000000021 } from './migrations/21-class-turns.js';
import { ReplayStops1700000000022 } from './migrations/22-replay-stops.js';
import { Explanations1700000000023 } from './migrations/23-explanations.js';
import { ExplanationLinks1700000000024 } from './migrations/24-explanation-links.js';
import { ExplanationVideos1700000000025 } from './migrations/25-explanation-videos.js';
import { Companions1700000000026 } from './migrations/26-companions.js';
import { PostgresBase1700000000027 } from './migrations/postgresBase.js';
import { LessonCompanions1700000000027 } from './migrations/27-lessonCompanions.js';

/** Connections to PostgreSQL for all but the logs. */
const CONNECTIONS = 8;
/** Longest that a statement may take there, milliseconds. */
const LONGEST_MS = 60_000;

/** The database's file in the data folder. */
export const DATABASE_FILE = 'doodla.sqlite';

export function databasePath(source: DataSource): string {
  return source.options.database as string;
}

// Times are beyond 32 bits, and within what a number holds exactly (2⁵³).
types.setTypeParser(types.builtins.INT8, Number);

/** The database that is set: the file in the data folder, or PostgreSQL. */
export function databaseOf(
  { database, data }: Pick<Settings, 'database' | 'data'>,
  tables: Tables,
): DataSourceOptions {
  return database === SQLITE ? databaseOptions(data, tables) : postgresOptions(database, tables);
}

/** PostgreSQL at an address. */
export function postgresOptions(url: string, { entities, migrations }: Tables): DataSourceOptions {
  return {
    type: 'postgres',
    url,
    entities,
    migrations: [PostgresBase1700000000027, ...migrations],
    migrationsRun: true,
    migrationsTransactionMode: 'each',
    poolSize: CONNECTIONS,
    extra: { statement_timeout: LONGEST_MS },
  };
}

/** The part of better-sqlite3 that is used while opening. */
interface Database {
  pragma(statement: string): unknown;
}

/** The SQLite file in the data folder: write-ahead log, foreign keys, synced before acknowledged. */
export function databaseOptions(dataFolder: string, { entities, migrations }: Tables): DataSourceOptions {
  return {
    type: 'better-sqlite3',
    database: join(dataFolder, DATABASE_FILE),
    entities,
    migrations: [
      FirstLesson1700000000001,
      Pictures1700000000002,
      Shelf1700000000003,
      Notes1700000000004,
      Recordings1700000000005,
      Teaching1700000000006,
      LogsByPage1700000000007,
      Belongings1700000000008,
      ReadWords1700000000009,
      DoorsAndRules1700000000010,
      Polls1700000000011,
      IdeasAndWords1700000000012,
      Finding1700000000013,
      Privacy1700000000014,
      Links1700000000015,
      School1700000000016,
      ShelfThings1700000000017,
      SchoolSettings1700000000018,
      Teams1700000000019,
      ClassCovers1700000000020,
      ClassTurns1700000000021,
      ReplayStops1700000000022,
      Explanations1700000000023,
      ExplanationLinks1700000000024,
      ExplanationVideos1700000000025,
      Companions1700000000026,
      LessonCompanions1700000000027,
      ...migrations,
    ],
    migrationsRun: true,
    migrationsTransactionMode: 'each',
    prepareDatabase: (database: Database) => {
      database.pragma('journal_mode = WAL');
      database.pragma('foreign_keys = ON');
      database.pragma('synchronous = FULL');
      database.pragma('secure_delete = ON');
      database.pragma('busy_timeout = 5000');
    },
  };
}
