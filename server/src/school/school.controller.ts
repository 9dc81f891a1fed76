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
import { publicAddress } from '../http/publicAddress.js';
import { failures } from '../http/failures.js';
import { PurgeService } from '../lessons/purge.service.js';
import type { Teacher } from '../people/teacher.entity.js';
import { AdminGuard, CurrentTeacher, TeacherGuard } from '../people/visitor.guard.js';
import { LimitsService } from '../settings/limits.service.js';
import { Settings } from '../settings/settings.js';
import { DiskSpace } from '../storage/diskSpace.js';
import { AdminDto, InviteDto, LeaveDto, LimitsDto } from './school.dto.js';
import { SchoolService } from './school.service.js';

/** Times of clearing away that are told. */
const CLEARED_TOLD = 30;

/** For whoever looks after the school; colleagues are everybody's to see. */
@Controller('api/school')
export class SchoolController {
  constructor(
    private readonly school: SchoolService,
    private readonly purges: PurgeService,
    private readonly disk: DiskSpace,
    private readonly settings: Settings,
    private readonly limits: LimitsService,
  ) {}

  @Get('teachers')
  @UseGuards(AdminGuard)
  teachers(): Promise<SchoolTeacher[]> {
    return this.school.list();
  }

  @Get('colleagues')
  @UseGuards(TeacherGuard)
  colleagues(@CurrentTeacher() teacher: Teacher): Promise<Colleague[]> {
    return this.school.colleaguesOf(teacher.id);
  }

  @Get('health')
  @UseGuards(AdminGuard)
  async health(): Promise<SchoolHealth> {
    return {
      free: await this.disk.free(),
      failures: failures.count,
      uptimeSeconds: Math.floor(process.uptime()),
      ...this.limits.current,
      cleared: await this.purges.cleared(CLEARED_TOLD),
    };
  }

  /** Sets how much may be brought in, and how long classes are kept. */
  @Put('limits')
  @HttpCode(204)
  @UseGuards(AdminGuard)
  setLimits(@Body() limits: LimitsDto): Promise<void> {
    return this.limits.change(limits);
  }

  /** Invites somebody to be a teacher of the school; the link is theirs to open. */
  @Post('invitations')
  @UseGuards(AdminGuard)
  async invite(@Body() { name, email }: InviteDto, @Req() request: Request): Promise<InvitationReply> {
    return this.reply(await this.school.invite(name, email), request);
  }

  /** Makes a link by which a teacher chooses a new password. */
  @Post('teachers/:id/reset')
  @UseGuards(AdminGuard)
  async reset(@Param('id', ParseUUIDPipe) id: string, @Req() request: Request): Promise<InvitationReply> {
    return this.reply(await this.school.reset(id), request);
  }

  @Patch('teachers/:id')
  @HttpCode(204)
  @UseGuards(AdminGuard)
  async setAdmin(@Param('id', ParseUUIDPipe) id: string, @Body() { admin }: AdminDto): Promise<void> {
    await this.school.setAdmin(id, admin);
  }

  /** Takes a teacher out; what is theirs goes to another one. */
  @Post('teachers/:id/leave')
  @HttpCode(204)
  @UseGuards(AdminGuard)
  async leave(@Param('id', ParseUUIDPipe) id: string, @Body() { to }: LeaveDto): Promise<void> {
    await this.school.leave(id, to);
  }

  private reply(token: string, request: Request): InvitationReply {
    const address = publicAddress(request, this.settings);
    return { url: `${address}/invited/${token}` };
  }
}
