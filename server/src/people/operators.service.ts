import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { LessThan, Repository } from 'typeorm';
import { Operator } from './operator.entity.js';
import { OperatorSession } from './operatorSession.entity.js';
import { newSession, sessionOf } from './sessionToken.js';

/** Those who look after the installation, and their signed-in browsers. */
@Injectable()
export class OperatorsService {
  constructor(
    @InjectRepository(Operator) private readonly operators: Repository<Operator>,
    @InjectRepository(OperatorSession) private readonly sessions: Repository<OperatorSession>,
  ) {}

  exist(): Promise<boolean> {
    return this.operators.exists();
  }

  byEmail(email: string): Promise<Operator | null> {
    return this.operators.findOneBy({ email });
  }

  async add(operator: Operator): Promise<void> {
    await this.operators.insert(operator);
  }

  /** Gives a new password, and signs them out everywhere. */
  async setPassword(id: string, passwordHash: string): Promise<void> {
    await this.operators.update({ id }, { passwordHash });
    await this.sessions.delete({ operatorId: id });
  }

  /** Opens a session. Returns its token, which is kept nowhere but in the browser. */
  async openSession({ id }: Operator): Promise<string> {
    await this.sessions.delete({ expiresAt: LessThan(Date.now()) });
    const { token, kept } = newSession();
    await this.sessions.insert({ ...kept, operatorId: id });
    return token;
  }

  async closeSession(token: string): Promise<void> {
    await this.sessions.delete({ tokenHash: sessionOf(token) });
  }

  /** Whose session this is, or null. */
  async operatorOf(token: string | undefined): Promise<Operator | null> {
    if (!token) return null;
    const session = await this.sessions.findOneBy({ tokenHash: sessionOf(token) });
    if (!session || session.expiresAt < Date.now()) return null;
    return this.operators.findOneBy({ id: session.operatorId });
  }
}
