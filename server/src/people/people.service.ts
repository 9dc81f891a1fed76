import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { createHash, randomBytes, randomUUID } from 'node:crypto';
import type { RateLimiterAbstract, RateLimiterRes } from 'rate-limiter-flexible';
import { LessThan, Repository } from 'typeorm';
import { Problem } from '../http/problem.js';
import { Limiters } from '../processes/limiters.js';
import { Peers } from '../processes/peers.js';
import { hashPassword, passwordMatches } from './password.js';
import type { SetupDto, SignInDto } from './people.dto.js';
import { Session } from './session.entity.js';
import { Teacher } from './teacher.entity.js';

export const SESSION_DAYS = 30;
const SESSION_MS = SESSION_DAYS * 24 * 3600 * 1000;

const ATTEMPTS = 10;

const wrongSignIn = () =>
  new Problem(
    401,
    'wrong-sign-in',
    'That e-mail address and password do not go together. Check both and try again.',
  );

/** Teachers and their signed-in browsers. */
@Injectable()
export class PeopleService {
  /** Ten wrong passwords for one address from one place, in a quarter of an hour. */
  private readonly attempts: RateLimiterAbstract;

  private readonly signedOut: ((session: string) => void)[] = [];

  constructor(
    @InjectRepository(Teacher) private readonly teachers: Repository<Teacher>,
    @InjectRepository(Session) private readonly sessions: Repository<Session>,
    limiters: Limiters,
    private readonly peers: Peers,
  ) {
    this.attempts = limiters.of('passwords', ATTEMPTS, 900);
    peers.on('signedOut', (session) => this.tellSignedOut(session));
  }

  /** Calls back with a session that has been closed, here or at another process. */
  onSignedOut(listener: (session: string) => void): void {
    this.signedOut.push(listener);
  }

  async hasTeachers(): Promise<boolean> {
    return this.teachers.exists();
  }

  /** Makes the school's first teacher. */
  async setUp(dto: SetupDto): Promise<Teacher> {
    // Asked before and after hashing, which takes a while and is worth much to whoever wants to slow us down.
    await this.refuseSecondSetUp();
    const passwordHash = await hashPassword(dto.password);
    await this.refuseSecondSetUp();
    const teacher: Teacher = {
      id: randomUUID(),
      name: dto.name,
      email: dto.email.toLowerCase(),
      passwordHash,
      subject: null,
      admin: true,
      createdAt: Date.now(),
    };
    await this.teachers.insert(teacher);
    return teacher;
  }

  private async refuseSecondSetUp(): Promise<void> {
    if (await this.hasTeachers())
      throw new Problem(409, 'already-set-up', 'This server already has its first teacher. Please sign in.');
  }

  /** Checks a password; `from` is the client's address, for limiting attempts. */
  async signIn(dto: SignInDto, from: string): Promise<Teacher> {
    const key = `${from} ${dto.email.toLowerCase()}`;
    // Counted before it is known whether it is wrong, so that many at once are no way round the limit.
    const spent = await this.attempts.consume(key).catch((refused: RateLimiterRes) => refused);
    if (spent.consumedPoints > ATTEMPTS) {
      const minutes = Math.ceil(spent.msBeforeNext / 60_000);
      throw new Problem(
        429,
        'too-many-passwords',
        `Too many wrong passwords. Please wait ${minutes} minutes and try again.`,
        { minutes },
      );
    }
    const teacher = await this.teachers.findOneBy({ email: dto.email.toLowerCase() });
    const matches = await passwordMatches(teacher?.passwordHash ?? (await this.decoyHash), dto.password);
    if (!teacher || !matches) throw wrongSignIn();
    await this.attempts.delete(key);
    return teacher;
  }

  /** Checked for unknown addresses, so that the answer takes as long as for known ones. */
  private readonly decoyHash = hashPassword(randomUUID());

  firstTeacher(): Promise<Teacher | null> {
    return this.teachers.findOne({ where: {}, order: { createdAt: 'ASC' } });
  }

  /** Opens a session. Returns its token, which is kept nowhere but in the teacher's browser. */
  async openSession(teacher: Teacher): Promise<string> {
    await this.sessions.delete({ expiresAt: LessThan(Date.now()) });
    const token = randomBytes(32).toString('base64url');
    await this.sessions.insert({
      tokenHash: sessionOf(token),
      teacherId: teacher.id,
      expiresAt: Date.now() + SESSION_MS,
    });
    return token;
  }

  async closeSession(token: string): Promise<void> {
    await this.sessions.delete({ tokenHash: sessionOf(token) });
    this.hasSignedOut(sessionOf(token));
  }

  /** Closes all sessions of a teacher, such as after their password has changed. */
  async closeSessionsOf(teacherId: string): Promise<void> {
    const open = await this.sessions.findBy({ teacherId });
    await this.sessions.delete({ teacherId });
    for (const { tokenHash } of open) this.hasSignedOut(tokenHash);
  }

  private hasSignedOut(session: string): void {
    this.tellSignedOut(session);
    this.peers.tell('signedOut', session);
  }

  private tellSignedOut(session: string): void {
    for (const listener of this.signedOut) listener(session);
  }

  /** The teacher whose session this is, or null. */
  async teacherOf(token: string | undefined): Promise<Teacher | null> {
    if (!token) return null;
    const session = await this.sessions.findOneBy({ tokenHash: sessionOf(token) });
    if (!session || session.expiresAt < Date.now()) return null;
    return this.teachers.findOneBy({ id: session.teacherId });
  }
}

/** What a session goes by; its token is kept nowhere. */
export function sessionOf(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}
