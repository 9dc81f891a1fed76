import { Body, Controller, Get, HttpCode, Param, Post, Req, Res } from '@nestjs/common';
import type { Me, SchoolDoor, SignInReply } from '@doodla/core';
import type { Request, Response } from 'express';
import { notFound } from '../http/problem.js';
import { FIRST_SCHOOL } from '../schools/school.entity.js';
import { schoolClosed, SchoolsService } from '../schools/schools.service.js';
import { Settings } from '../settings/settings.js';
import { OperatorsService } from './operators.service.js';
import { SetupDto, SignInDto } from './people.dto.js';
import { PeopleService } from './people.service.js';
import { SignInService } from './signIn.service.js';
import { SessionCookie } from './sessionCookie.js';
import { SESSION_COOKIE, sessionToken } from './visitors.service.js';

@Controller('api')
export class PeopleController {
  constructor(
    private readonly people: PeopleService,
    private readonly operators: OperatorsService,
    private readonly signIns: SignInService,
    private readonly schools: SchoolsService,
    private readonly settings: Settings,
    private readonly cookie: SessionCookie,
  ) {}

  @Get('me')
  async me(@Req() request: Request): Promise<Me> {
    const token = sessionToken(request);
    const teacher = await this.people.teacherOf(token);
    const operator = teacher ? null : await this.operators.operatorOf(token);
    return {
      teacher: teacher && { id: teacher.id, name: teacher.name, admin: teacher.admin },
      operator: operator && { name: operator.name },
      needsSetup: await this.people.needsSetUp(),
      demo: this.settings.demo,
      // Where there are several, each has a page of its own for that.
      schoolSignIn: (await this.schools.count()) === 1 && this.schools.hasSignIn(FIRST_SCHOOL),
    };
  }

  /** What the sign-in page of a school has to know. */
  @Get('schools/:slug/door')
  async door(@Param('slug') slug: string): Promise<SchoolDoor> {
    const { id, name, closedAt } = await this.schools.bySlug(slug);
    if (closedAt !== null) throw schoolClosed();
    return { name, schoolSignIn: this.schools.hasSignIn(id) };
  }

  @Post('setup')
  async setUp(@Body() dto: SetupDto, @Res({ passthrough: true }) response: Response): Promise<void> {
    await this.cookie.open(await this.people.setUp(dto), response);
  }

  /** Signs in, or asks which of several places one wants. */
  @Post('sign-in')
  async signIn(
    @Body() dto: SignInDto,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<SignInReply | undefined> {
    const signedIn = await this.signIns.signIn(dto, request.ip ?? '');
    if ('schools' in signedIn) {
      response.status(200);
      return signedIn;
    }
    if ('teacher' in signedIn) await this.cookie.open(signedIn.teacher, response);
    else await this.cookie.openOperator(signedIn.operator, response);
    response.status(204);
    return undefined;
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
    if (token) {
      await this.people.closeSession(token);
      await this.operators.closeSession(token);
    }
    response.clearCookie(SESSION_COOKIE);
  }
}
