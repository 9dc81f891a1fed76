import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { randomUUID } from 'node:crypto';
import { LessThan, Repository } from 'typeorm';
import { Problem } from '../http/problem.js';
import { Peers } from '../processes/peers.js';
import { FIRST_SCHOOL } from '../schools/school.entity.js';
import { schoolClosed, SchoolsService } from '../schools/schools.service.js';
import { Settings } from '../settings/settings.js';
import { OperatorsService } from './operators.service.js';
import { hashPassword } from './password.js';
import type { SetupDto } from './people.dto.js';
import { Session } from './session.entity.js';
import { newSession, sessionOf } from './sessionToken.js';
import { Teacher } from './teacher.entity.js';

/** Teachers and their signed-in browsers. */
@Injectable()
export class PeopleService {
  /** Whether the settings say who looks after the installation: then nobody else makes themselves its first. */
  private readonly isLookedAfter: boolean;
  private readonly signedOut: ((session: string) => void)[] = [];

  constructor(
    @InjectRepository(Teacher) private readonly teachers: Repository<Teacher>,
    @InjectRepository(Session) private readonly sessions: Repository<Session>,
    private readonly operators: OperatorsService,
    private readonly schools: SchoolsService,
    private readonly peers: Peers,
    settings: Settings,
  ) {
    this.isLookedAfter = settings.operator !== undefined;
    peers.on('signedOut', (session) => this.tellSignedOut(session));
  }

  /** Calls back with a session that has been closed, here or at another process. */
  onSignedOut(listener: (session: string) => void): void {
    this.signedOut.push(listener);
  }

  /** Whether there is nobody yet who could let others in. */
  async needsSetUp(): Promise<boolean> {
    return !(await this.teachers.exists()) && !(await this.operators.exist()) && !this.isLookedAfter;
  }

  /** Makes the first teacher of the first school. */
  async setUp(dto: SetupDto): Promise<Teacher> {
    // Asked before and after hashing, which takes a while and is worth much to whoever wants to slow us down.
    await this.refuseSecondSetUp();
    const passwordHash = await hashPassword(dto.password);
    await this.refuseSecondSetUp();
    const teacher: Teacher = {
      id: randomUUID(),
      schoolId: FIRST_SCHOOL,
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
    if (!(await this.needsSetUp()))
      throw new Problem(409, 'already-set-up', 'This server already has its first teacher. Please sign in.');
  }

  firstTeacher(): Promise<Teacher | null> {
    return this.teachers.findOne({ where: {}, order: { createdAt: 'ASC' } });
  }

  /** Opens a session. Returns its token, which is kept nowhere but in the teacher's browser. Throws Problem. */
  async openSession(teacher: Teacher): Promise<string> {
    await this.sessions.delete({ expiresAt: LessThan(Date.now()) });
    if ((await this.schools.find(teacher.schoolId)).closedAt !== null) throw schoolClosed();
    const { token, kept } = newSession();
    await this.sessions.insert({ ...kept, teacherId: teacher.id });
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
