import { Global, Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import type { Tables } from '../storage/tables.js';
import { ClassGroup } from './group.entity.js';
import { GroupsController } from './groups.controller.js';
import { GroupsService } from './groups.service.js';

export const GROUPS_TABLES: Tables = { entities: [ClassGroup], migrations: [] };

/** Classes as teachers have them all term. */
@Global()
@Module({
  imports: [TypeOrmModule.forFeature(GROUPS_TABLES.entities)],
  controllers: [GroupsController],
  providers: [GroupsService],
  exports: [GroupsService],
})
export class GroupsModule {}
