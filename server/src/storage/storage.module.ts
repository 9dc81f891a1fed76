import { Global, Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { Settings } from '../settings/settings.js';
import { databaseOptions } from './dataSource.js';
import { FileStore } from './fileStore.js';

@Global()
@Module({
  imports: [
    TypeOrmModule.forRootAsync({
      inject: [Settings],
      useFactory: (settings: Settings) => databaseOptions(settings.data),
    }),
  ],
  providers: [FileStore],
  exports: [FileStore],
})
export class StorageModule {}
