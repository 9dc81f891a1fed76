import { Global, Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import type { Tables } from '../storage/tables.js';
import { ArrangingService } from './arranging.service.js';
import { IdeasGateway } from './ideas.gateway.js';
import { IdeaVote } from './ideaVote.entity.js';
import { VotesService } from './votes.service.js';

export const IDEAS_TABLES: Tables = { entities: [IdeaVote], migrations: [] };

/** Ideas that are collected on pages of a class. */
@Global()
@Module({
  imports: [TypeOrmModule.forFeature(IDEAS_TABLES.entities)],
  providers: [IdeasGateway, VotesService, ArrangingService],
  exports: [VotesService],
})
export class IdeasModule {}
