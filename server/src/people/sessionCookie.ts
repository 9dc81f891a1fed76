import { Injectable } from '@nestjs/common';
import type { Response } from 'express';
import { Settings } from '../settings/settings.js';
import type { Operator } from './operator.entity.js';
import { OperatorsService } from './operators.service.js';
import { PeopleService } from './people.service.js';
import { SESSION_DAYS } from './sessionToken.js';
import type { Teacher } from './teacher.entity.js';
import { SESSION_COOKIE } from './visitors.service.js';

/** Signs people in, in a browser. */
@Injectable()
export class SessionCookie {
  constructor(
    private readonly people: PeopleService,
    private readonly operators: OperatorsService,
    private readonly settings: Settings,
  ) {}

  /** Whether cookies are for encrypted connections alone. */
  get secure(): boolean {
    return this.settings.https || this.settings.publicUrl?.startsWith('https:') === true;
  }

  /** Opens a session whose token is in the browser alone. */
  async open(teacher: Teacher, response: Response): Promise<void> {
    this.put(await this.people.openSession(teacher), response);
  }

  /** As `open`, for who looks after the installation. */
  async openOperator(operator: Operator, response: Response): Promise<void> {
    this.put(await this.operators.openSession(operator), response);
  }

  private put(token: string, response: Response): void {
    response.cookie(SESSION_COOKIE, token, {
      httpOnly: true,
      sameSite: 'strict',
      secure: this.secure,
      maxAge: SESSION_DAYS * 24 * 3600 * 1000,
    });
  }
}
