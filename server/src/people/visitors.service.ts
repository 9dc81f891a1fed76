import { Injectable } from '@nestjs/common';
import cookieParser from 'cookie-parser';
import type { IncomingMessage } from 'node:http';
import { PeopleService } from './people.service.js';
import { sessionOf } from './sessionToken.js';
import { ClassTokens } from './classTokens.js';
import type { Visitor } from './visitor.js';

export const SESSION_COOKIE = 'doodla';

/** Tells who a request comes from. A token counts before a teacher's cookie. */
@Injectable()
export class VisitorsService {
  constructor(
    private readonly people: PeopleService,
    private readonly tokens: ClassTokens,
  ) {}

  async of(token: string | undefined, request: IncomingMessage): Promise<Visitor> {
    if (token !== undefined) {
      const claim = this.tokens.read(token);
      if (!claim) return { role: 'nobody' };
      if ('lesson' in claim) return { role: 'helper', ...claim };
      return 'student' in claim ? { role: 'student', ...claim } : { role: 'device', ...claim };
    }
    const cookie = sessionToken(request);
    const teacher = await this.people.teacherOf(cookie);
    return teacher ? { role: 'teacher', teacher, session: sessionOf(cookie!) } : { role: 'nobody' };
  }
}

/** The session token in a request's cookies. */
export function sessionToken(request: IncomingMessage): string | undefined {
  const parsed = request as IncomingMessage & { cookies?: Record<string, string> };
  if (!parsed.cookies) cookieParser()(request as never, undefined as never, () => undefined);
  return parsed.cookies?.[SESSION_COOKIE];
}

/** The token of an `Authorization: Bearer` header (RFC 6750). */
export function bearerToken(request: IncomingMessage): string | undefined {
  return /^Bearer (.+)$/.exec(request.headers.authorization ?? '')?.[1];
}
