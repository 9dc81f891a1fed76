import { Global, Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { ExplanationsModule } from '../explanations/explanations.module.js';
import type { Tables } from '../storage/tables.js';
import { SharedLink } from './link.entity.js';
import { LinksController } from './links.controller.js';
import { LinksService } from './links.service.js';

export const LINKS_TABLES: Tables = { entities: [SharedLink], migrations: [] };

/** Links that show pages, or play an explanation, without a sign-in. */
@Global()
@Module({
  imports: [TypeOrmModule.forFeature(LINKS_TABLES.entities), ExplanationsModule],
  controllers: [LinksController],
  providers: [LinksService],
  exports: [LinksService],
})
export class LinksModule {}
