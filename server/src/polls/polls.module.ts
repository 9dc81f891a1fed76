import { Global, Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import type { Tables } from '../storage/tables.js';
import { AskedPoll } from './poll.entity.js';
import { GivenAnswer } from './pollAnswer.entity.js';
import { PollsGateway } from './polls.gateway.js';
import { PollsService } from './polls.service.js';

export const POLLS_TABLES: Tables = { entities: [AskedPoll, GivenAnswer], migrations: [] };

/** What classes are asked, hands and reactions. */
@Global()
@Module({
  imports: [TypeOrmModule.forFeature(POLLS_TABLES.entities)],
  providers: [PollsGateway, PollsService],
  exports: [PollsService],
})
export class PollsModule {}
