import type { DynamicModule } from '@nestjs/common';
import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { Settings } from '../settings/settings.js';
import { DataSource } from 'typeorm';
import { databaseOf, databasePath } from './dataSource.js';
import { isPostgres } from './dialect.js';
import { PostgresLogDatabase } from './postgresLogDatabase.js';
import { PostgresWordIndex } from './postgresWordIndex.js';
import { DiskSpace } from './diskSpace.js';
import { Holds } from './holds.js';
import { FileStore } from './fileStore.js';
import { LogDatabase } from './logDatabase.js';
import { LogStore } from './logStore.js';
import { SqliteWordIndex } from './sqliteWordIndex.js';
import { WordIndex } from './wordIndex.js';
import { SqliteLogDatabase } from './sqliteLogDatabase.js';
import type { Tables } from './tables.js';
import { Database } from './database.js';

@Module({})
export class StorageModule {
  /** Files, logs and the database with these tables. */
  static with(tables: Tables): DynamicModule {
    const logDatabase = {
      provide: LogDatabase,
      inject: [DataSource, Settings],
      // The main connection comes first: it brings the tables up to date.
      useFactory: (main: DataSource, { database }: Settings) =>
        isPostgres(main) ? new PostgresLogDatabase(database) : new SqliteLogDatabase(databasePath(main)),
    };
    const wordIndex = {
      provide: WordIndex,
      inject: [Database, DataSource],
      useFactory: (database: Database, main: DataSource) =>
        isPostgres(main) ? new PostgresWordIndex(database) : new SqliteWordIndex(database),
    };
    const providers = [FileStore, logDatabase, LogStore, DiskSpace, Database, wordIndex, Holds];
    return {
      module: StorageModule,
      global: true,
      imports: [
        TypeOrmModule.forRootAsync({
          inject: [Settings],
          useFactory: (settings: Settings) => databaseOf(settings, tables),
        }),
      ],
      providers,
      exports: providers,
    };
  }
}
