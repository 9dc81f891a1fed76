import { Global, Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import type { Tables } from '../storage/tables.js';
import { SchoolsService } from './schools.service.js';
import { RoomService } from './room.service.js';
import { School } from './school.entity.js';
import { StoredDeed } from './schoolDeed.entity.js';
import { Schools1700000000029 } from './schools.migration.js';

export const SCHOOLS_TABLES: Tables = {
  entities: [School, StoredDeed],
  migrations: [Schools1700000000029],
};

/** The schools of the installation, and what each may do. */
@Global()
@Module({
  imports: [TypeOrmModule.forFeature(SCHOOLS_TABLES.entities)],
  providers: [SchoolsService, RoomService],
  exports: [SchoolsService, RoomService, TypeOrmModule],
})
export class SchoolsModule {}
