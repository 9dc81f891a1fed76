import { Body, Controller, Get, HttpCode, Param, Post, Req, Res } from '@nestjs/common';
import type { InvitationDoor } from '@doodla/core';
import type { Request, Response } from 'express';
import { AttemptLimit } from '../http/attemptLimit.js';
import { Limiters } from '../processes/limiters.js';
import { SessionCookie } from '../people/sessionCookie.js';
import { AcceptDto } from './school.dto.js';
import { InvitationsService } from './invitations.service.js';

/** For whoever was invited, and has no password yet. */
@Controller('api/invitations/:token')
export class InvitationsController {
  private readonly limit: AttemptLimit;

  constructor(
    private readonly invitations: InvitationsService,
    private readonly cookie: SessionCookie,
    limiters: Limiters,
  ) {
    this.limit = new AttemptLimit(limiters, 'invitations');
  }

  @Get()
  door(@Param('token') token: string, @Req() request: Request): Promise<InvitationDoor> {
    return this.limit.guard(request, () => this.invitations.door(token));
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
    const accepted = await this.limit.guard(request, () => this.invitations.accept(token, name, password));
    if ('teacher' in accepted) await this.cookie.open(accepted.teacher, response);
    else await this.cookie.openOperator(accepted.operator, response);
  }
}
