import { Global, Module } from '@nestjs/common';
import { HistoryController } from './history.controller.js';
import { HistoryService } from './history.service.js';
import { ReplayController } from './replay.controller.js';
import { ReplayService } from './replay.service.js';

/** Earlier states of pages. */
@Global()
@Module({
  controllers: [HistoryController, ReplayController],
  providers: [HistoryService, ReplayService],
  exports: [HistoryService],
})
export class HistoryModule {}
