import { Global, Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import type { Tables } from '../storage/tables.js';
import { LimitsService } from './limits.service.js';
import { SchoolLimit } from './schoolLimit.entity.js';

export const LIMITS_TABLES: Tables = { entities: [SchoolLimit], migrations: [] };

/** What the school has set. */
@Global()
@Module({
  imports: [TypeOrmModule.forFeature(LIMITS_TABLES.entities)],
  providers: [LimitsService],
  exports: [LimitsService],
})
export class LimitsModule {}
