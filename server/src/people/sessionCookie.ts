import { Injectable } from '@nestjs/common';
import type { Response } from 'express';
import { Settings } from '../settings/settings.js';
import { PeopleService, SESSION_DAYS } from './people.service.js';
import type { Teacher } from './teacher.entity.js';
import { SESSION_COOKIE } from './visitors.service.js';

/** Signs teachers in and out of a browser. */
@Injectable()
export class SessionCookie {
  constructor(
    private readonly people: PeopleService,
    private readonly settings: Settings,
  ) {}

  /** Whether cookies are for encrypted connections alone. */
  get secure(): boolean {
    return this.settings.https || this.settings.publicUrl?.startsWith('https:') === true;
  }

  /** Opens a session whose token is in the browser alone. */
  async open(teacher: Teacher, response: Response): Promise<void> {
    response.cookie(SESSION_COOKIE, await this.people.openSession(teacher), {
      httpOnly: true,
      sameSite: 'strict',
      secure: this.secure,
      maxAge: SESSION_DAYS * 24 * 3600 * 1000,
    });
  }
}
