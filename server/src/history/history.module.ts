import { Global, Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import type { Tables } from '../storage/tables.js';
import { ChaptersController } from './chapters.controller.js';
import { HistoryController } from './history.controller.js';
import { HistoryService } from './history.service.js';
import { ReplayController } from './replay.controller.js';
import { ReplayAccess } from './replayAccess.js';
import { ReplayService } from './replay.service.js';
import { StoredStop } from './replayStop.entity.js';
import { StopsController } from './stops.controller.js';
import { StopsService } from './stops.service.js';

export const HISTORY_TABLES: Tables = { entities: [StoredStop], migrations: [] };

/** Earlier states of pages, and playing them again. */
@Global()
@Module({
  imports: [TypeOrmModule.forFeature(HISTORY_TABLES.entities)],
  controllers: [ChaptersController, HistoryController, ReplayController, StopsController],
  providers: [HistoryService, ReplayAccess, ReplayService, StopsService],
  exports: [HistoryService, ReplayAccess],
})
export class HistoryModule {}
