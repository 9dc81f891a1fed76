import { Global, Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { Settings } from '../settings/settings.js';
import { databaseOptions } from './dataSource.js';
import { DiskSpace } from './diskSpace.js';
import { FileStore } from './fileStore.js';
import { LogStore } from './logStore.js';

@Global()
@Module({
  imports: [
    TypeOrmModule.forRootAsync({
      inject: [Settings],
      useFactory: (settings: Settings) => databaseOptions(settings.data),
    }),
  ],
  providers: [FileStore, LogStore, DiskSpace],
  exports: [FileStore, LogStore, DiskSpace],
})
export class StorageModule {}
