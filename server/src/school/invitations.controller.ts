import { Body, Controller, Get, HttpCode, Param, Post, Req, Res } from '@nestjs/common';
import type { InvitationDoor } from '@doodla/core';
import type { Request, Response } from 'express';
import { AttemptLimit } from '../http/attemptLimit.js';
import { Limiters } from '../processes/limiters.js';
import { SessionCookie } from '../people/sessionCookie.js';
import { AcceptDto } from './school.dto.js';
import { SchoolService } from './school.service.js';

/** For whoever was invited, and has no password yet. */
@Controller('api/invitations/:token')
export class InvitationsController {
  private readonly limit: AttemptLimit;

  constructor(
    private readonly school: SchoolService,
    private readonly cookie: SessionCookie,
    limiters: Limiters,
  ) {
    this.limit = new AttemptLimit(limiters, 'invitations');
  }

  @Get()
  door(@Param('token') token: string, @Req() request: Request): Promise<InvitationDoor> {
    return this.limit.guard(request, () => this.school.door(token));
  }

  /** Takes an invitation up, and signs in. */
  @Post()
  @HttpCode(204)
  async accept(
    @Param('token') token: string,
    @Body() { name, password }: AcceptDto,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    const teacher = await this.limit.guard(request, () => this.school.accept(token, name, password));
    await this.cookie.open(teacher, response);
  }
}
