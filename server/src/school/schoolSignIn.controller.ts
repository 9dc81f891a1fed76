import { Controller, Get, Logger, Query, Req, Res } from '@nestjs/common';
import type { Request, Response } from 'express';
import { AttemptLimit } from '../http/attemptLimit.js';
import { Limiters } from '../processes/limiters.js';
import { logFailure } from '../http/failures.js';
import { Problem } from '../http/problem.js';
import { SessionCookie } from '../people/sessionCookie.js';
import { SignInAtDto } from './school.dto.js';
import type { SignInUnderWay } from './schoolSignIn.service.js';
import { RETURN_PATH, SchoolSignInService } from './schoolSignIn.service.js';

const COOKIE = 'doodla_school_sign_in';
const logger = new Logger('SchoolSignIn');
const GOOD_FOR_MS = 10 * 60_000;

/** The way to the school's own sign-in and back; a browser goes it by links, so what goes wrong is told by the start page. */
@Controller()
export class SchoolSignInController {
  private readonly limit: AttemptLimit;

  constructor(
    private readonly signIn: SchoolSignInService,
    private readonly cookie: SessionCookie,
    limiters: Limiters,
  ) {
    this.limit = new AttemptLimit(limiters, 'school-sign-in');
  }

  @Get('api/sign-in/school')
  begin(@Query() { at }: SignInAtDto, @Req() request: Request, @Res() response: Response): Promise<void> {
    return orTell(response, async () => {
      const { url, underWay } = await this.limit.guard(request, () => this.signIn.begin(at));
      // Lax, since the way back comes from the provider's pages.
      response.cookie(COOKIE, JSON.stringify(underWay), {
        httpOnly: true,
        sameSite: 'lax',
        secure: this.cookie.secure,
        maxAge: GOOD_FOR_MS,
        path: RETURN_PATH,
      });
      response.redirect(url);
    });
  }

  @Get(RETURN_PATH)
  finish(@Req() request: Request, @Res() response: Response): Promise<void> {
    return orTell(response, async () => {
      response.clearCookie(COOKIE, { path: RETURN_PATH });
      const underWay = underWayOf(request);
      const { search } = new URL(request.originalUrl, 'http://here');
      const teacher = await this.limit.guard(request, () => this.signIn.finish(search, underWay));
      await this.cookie.open(teacher, response);
      response.redirect('/');
    });
  }
}

/** What the browser kept. Throws Problem where it has nothing of the kind, such as after too long a while. */
function underWayOf(request: Request): SignInUnderWay {
  try {
    const kept = JSON.parse((request.cookies as Record<string, string>)[COOKIE] ?? '') as SignInUnderWay;
    const { state, nonce, verifier, school } = kept;
    if ([state, nonce, verifier, school].every((part) => typeof part === 'string'))
      return { state, nonce, verifier, school };
  } catch {
    // It is no JSON: as if it were not there.
  }
  throw new Problem(401, 'school-sign-in-late', 'That took too long. Please try to sign in once more.');
}

async function orTell(response: Response, work: () => Promise<void>): Promise<void> {
  try {
    await work();
  } catch (error) {
    // A browser on its way by links would show an answer for programs.
    if (!(error instanceof Problem)) logFailure(logger, 'A sign-in with the school’s account failed', error);
    const problem = error instanceof Problem ? error.code : 'school-sign-in-failed';
    response.redirect(`/?${new URLSearchParams({ problem })}`);
  }
}
