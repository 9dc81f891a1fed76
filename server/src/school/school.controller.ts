import {
  Body,
  Controller,
  Get,
  HttpCode,
  Param,
  ParseUUIDPipe,
  Patch,
  Post,
  Put,
  Req,
  UseGuards,
} from '@nestjs/common';
import type { Colleague, InvitationReply, SchoolHealth, SchoolTeacher } from '@doodla/core';
import type { Request } from 'express';
import { failures } from '../http/failures.js';
import { PurgeService } from '../lessons/purge.service.js';
import type { Teacher } from '../people/teacher.entity.js';
import { AdminGuard, CurrentTeacher, TeacherGuard } from '../people/visitor.guard.js';
import { RoomService } from '../schools/room.service.js';
import { SchoolsService } from '../schools/schools.service.js';
import { Settings } from '../settings/settings.js';
import { DiskSpace } from '../storage/diskSpace.js';
import { AdminDto, InviteDto, LeaveDto, LimitsDto, SchoolNameDto } from './school.dto.js';
import { invitationLink } from './invitationLink.js';
import { InvitationsService } from './invitations.service.js';
import { SchoolService } from './school.service.js';

/** Times of clearing away that are told. */
const CLEARED_TOLD = 30;

/** For whoever looks after the school; colleagues are everybody's to see. */
@Controller('api/school')
export class SchoolController {
  constructor(
    private readonly school: SchoolService,
    private readonly invitations: InvitationsService,
    private readonly purges: PurgeService,
    private readonly disk: DiskSpace,
    private readonly settings: Settings,
    private readonly schools: SchoolsService,
    private readonly room: RoomService,
  ) {}

  @Get('teachers')
  @UseGuards(AdminGuard)
  teachers(@CurrentTeacher() me: Teacher): Promise<SchoolTeacher[]> {
    return this.school.list(me);
  }

  @Get('colleagues')
  @UseGuards(TeacherGuard)
  colleagues(@CurrentTeacher() teacher: Teacher): Promise<Colleague[]> {
    return this.school.colleaguesOf(teacher);
  }

  @Get('health')
  @UseGuards(AdminGuard)
  async health(@CurrentTeacher() me: Teacher): Promise<SchoolHealth> {
    const { name, maxBytes } = await this.schools.find(me.schoolId);
    return {
      name,
      bytes: await this.room.used(me.schoolId),
      maxBytes,
      free: await this.disk.free(),
      failures: failures.count,
      uptimeSeconds: Math.floor(process.uptime()),
      ...this.schools.limitsOf(me.schoolId),
      cleared: await this.purges.clearedOf(me.schoolId, CLEARED_TOLD),
      deeds: await this.school.deedsTo(me),
    };
  }

  /** Says what the school is called. */
  @Put('name')
  @HttpCode(204)
  @UseGuards(AdminGuard)
  setName(@CurrentTeacher() me: Teacher, @Body() { name }: SchoolNameDto): Promise<void> {
    return this.schools.setName(me.schoolId, name);
  }

  /** Sets how much may be brought in, and how long classes are kept. */
  @Put('limits')
  @HttpCode(204)
  @UseGuards(AdminGuard)
  setLimits(@CurrentTeacher() me: Teacher, @Body() limits: LimitsDto): Promise<void> {
    return this.schools.setLimits(me.schoolId, limits);
  }

  /** Invites somebody to be a teacher of the school; the link is theirs to open. */
  @Post('invitations')
  @UseGuards(AdminGuard)
  async invite(
    @CurrentTeacher() me: Teacher,
    @Body() who: InviteDto,
    @Req() request: Request,
  ): Promise<InvitationReply> {
    return invitationLink(await this.invitations.invite(me.schoolId, who), request, this.settings);
  }

  /** Makes a link by which a teacher chooses a new password. */
  @Post('teachers/:id/reset')
  @UseGuards(AdminGuard)
  async reset(
    @CurrentTeacher() me: Teacher,
    @Param('id', ParseUUIDPipe) id: string,
    @Req() request: Request,
  ): Promise<InvitationReply> {
    const teacher = await this.school.teacher(me, id);
    return invitationLink(await this.invitations.reset(teacher), request, this.settings);
  }

  @Patch('teachers/:id')
  @HttpCode(204)
  @UseGuards(AdminGuard)
  async setAdmin(
    @CurrentTeacher() me: Teacher,
    @Param('id', ParseUUIDPipe) id: string,
    @Body() { admin }: AdminDto,
  ): Promise<void> {
    await this.school.setAdmin(me, id, admin);
  }

  /** Takes a teacher out; what is theirs goes to another one. */
  @Post('teachers/:id/leave')
  @HttpCode(204)
  @UseGuards(AdminGuard)
  async leave(
    @CurrentTeacher() me: Teacher,
    @Param('id', ParseUUIDPipe) id: string,
    @Body() { to }: LeaveDto,
  ): Promise<void> {
    await this.school.leave(me, id, to);
  }
}
