import type { DynamicModule } from '@nestjs/common';
import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { Settings } from '../settings/settings.js';
import { DataSource } from 'typeorm';
import { databaseOptions, databasePath } from './dataSource.js';
import { DiskSpace } from './diskSpace.js';
import { FileStore } from './fileStore.js';
import { LogDatabase } from './logDatabase.js';
import { LogStore } from './logStore.js';
import { SqliteLogDatabase } from './sqliteLogDatabase.js';
import type { Tables } from './tables.js';
import { Writes } from './writes.js';

@Module({})
export class StorageModule {
  /** Files, logs and the database with these tables. */
  static with(tables: Tables): DynamicModule {
    const logDatabase = {
      provide: LogDatabase,
      inject: [DataSource],
      useFactory: (main: DataSource) => new SqliteLogDatabase(databasePath(main)),
    };
    const providers = [FileStore, logDatabase, LogStore, DiskSpace, Writes];
    return {
      module: StorageModule,
      global: true,
      imports: [
        TypeOrmModule.forRootAsync({
          inject: [Settings],
          useFactory: (settings: Settings) => databaseOptions(settings.data, tables),
        }),
      ],
      providers,
      exports: providers,
    };
  }
}
