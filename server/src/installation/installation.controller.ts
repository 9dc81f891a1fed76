import {
  Body,
  Controller,
  Get,
  HttpCode,
  Param,
  ParseUUIDPipe,
  Patch,
  Post,
  Req,
  UseGuards,
} from '@nestjs/common';
import type { InstallationFigures, InvitationReply } from '@doodla/core';
import type { Request } from 'express';
import { CurrentOperator, OperatorGuard } from '../people/operator.guard.js';
import type { Operator } from '../people/operator.entity.js';
import { invitationLink } from '../school/invitationLink.js';
import { InviteDto } from '../school/school.dto.js';
import { Settings } from '../settings/settings.js';
import { FiguresService } from './figures.service.js';
import { EraseSchoolDto, NewSchoolDto, SchoolChangeDto } from './installation.dto.js';
import { InstallationService } from './installation.service.js';

/** For whoever looks after the installation: figures of its schools, and what can be done with them. */
@Controller('api/installation')
@UseGuards(OperatorGuard)
export class InstallationController {
  constructor(
    private readonly installation: InstallationService,
    private readonly figures: FiguresService,
    private readonly settings: Settings,
  ) {}

  @Get()
  now(): Promise<InstallationFigures> {
    return this.figures.now();
  }

  /** Makes a school; the link is for whoever is to look after it. */
  @Post('schools')
  async make(
    @CurrentOperator() operator: Operator,
    @Body() school: NewSchoolDto,
    @Req() request: Request,
  ): Promise<InvitationReply> {
    return invitationLink(await this.installation.make(operator, school), request, this.settings);
  }

  @Patch('schools/:id')
  @HttpCode(204)
  async change(
    @CurrentOperator() operator: Operator,
    @Param('id', ParseUUIDPipe) id: string,
    @Body() wanted: SchoolChangeDto,
  ): Promise<void> {
    await this.installation.change(operator, id, wanted);
  }

  /** Invites somebody to look after a school. */
  @Post('schools/:id/invitations')
  async invite(
    @CurrentOperator() operator: Operator,
    @Param('id', ParseUUIDPipe) id: string,
    @Body() who: InviteDto,
    @Req() request: Request,
  ): Promise<InvitationReply> {
    return invitationLink(await this.installation.inviteAdmin(operator, id, who), request, this.settings);
  }

  /** Takes a closed school away, with all that is in it. */
  @Post('schools/:id/erase')
  @HttpCode(204)
  async erase(@Param('id', ParseUUIDPipe) id: string, @Body() { name }: EraseSchoolDto): Promise<void> {
    await this.installation.erase(id, name);
  }
}
