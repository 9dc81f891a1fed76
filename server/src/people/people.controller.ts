import { Body, Controller, Get, HttpCode, Post, Req, Res } from '@nestjs/common';
import type { Me } from '@doodla/core';
import type { Request, Response } from 'express';
import { notFound } from '../http/problem.js';
import { Settings } from '../settings/settings.js';
import { SetupDto, SignInDto } from './people.dto.js';
import { PeopleService } from './people.service.js';
import { SessionCookie } from './sessionCookie.js';
import { SESSION_COOKIE, sessionToken } from './visitors.service.js';

@Controller('api')
export class PeopleController {
  constructor(
    private readonly people: PeopleService,
    private readonly settings: Settings,
    private readonly cookie: SessionCookie,
  ) {}

  @Get('me')
  async me(@Req() request: Request): Promise<Me> {
    const teacher = await this.people.teacherOf(sessionToken(request));
    return {
      teacher: teacher && { id: teacher.id, name: teacher.name, admin: teacher.admin },
      needsSetup: !(await this.people.hasTeachers()),
      demo: this.settings.demo,
      schoolSignIn: this.settings.oidcIssuer !== undefined,
    };
  }

  @Post('setup')
  async setUp(@Body() dto: SetupDto, @Res({ passthrough: true }) response: Response): Promise<void> {
    await this.cookie.open(await this.people.setUp(dto), response);
  }

  @Post('sign-in')
  @HttpCode(204)
  async signIn(
    @Body() dto: SignInDto,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    await this.cookie.open(await this.people.signIn(dto, request.ip ?? ''), response);
  }

  /** One click for whoever tries the demo; there is no such door outside demo mode. */
  @Post('demo-sign-in')
  @HttpCode(204)
  async demoSignIn(@Res({ passthrough: true }) response: Response): Promise<void> {
    const teacher = this.settings.demo ? await this.people.firstTeacher() : null;
    if (!teacher) throw notFound('The demo');
    await this.cookie.open(teacher, response);
  }

  @Post('sign-out')
  @HttpCode(204)
  async signOut(@Req() request: Request, @Res({ passthrough: true }) response: Response): Promise<void> {
    const token = sessionToken(request);
    if (token) await this.people.closeSession(token);
    response.clearCookie(SESSION_COOKIE);
  }
}
