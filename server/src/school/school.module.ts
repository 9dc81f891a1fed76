import { Module } from '@nestjs/common';
import { TypeOrmModule } from '@nestjs/typeorm';
import { ArchiveModule } from '../archive/archive.module.js';
import { Teacher } from '../people/teacher.entity.js';
import type { Tables } from '../storage/tables.js';
import { GivingController } from './giving.controller.js';
import { Invitation } from './invitation.entity.js';
import { InvitationsController } from './invitations.controller.js';
import { InvitationsService } from './invitations.service.js';
import { SchoolController } from './school.controller.js';
import { SchoolService } from './school.service.js';
import { SchoolSignInController } from './schoolSignIn.controller.js';
import { SchoolSignInService } from './schoolSignIn.service.js';

export const SCHOOL_TABLES: Tables = { entities: [Invitation], migrations: [] };

/** The school: its teachers, invitations, and what they give each other. */
@Module({
  imports: [TypeOrmModule.forFeature([...SCHOOL_TABLES.entities, Teacher]), ArchiveModule],
  controllers: [GivingController, InvitationsController, SchoolController, SchoolSignInController],
  providers: [InvitationsService, SchoolService, SchoolSignInService],
  exports: [InvitationsService],
})
export class SchoolModule {}
