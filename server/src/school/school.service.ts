import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { Colleague, InvitationDoor, SchoolTeacher } from '@doodla/core';
import { randomBytes, randomUUID } from 'node:crypto';
import { LessThan, Not, Repository } from 'typeorm';
import { notFound, Problem } from '../http/problem.js';
import { hashPassword } from '../people/password.js';
import { PeopleService, sessionOf } from '../people/people.service.js';
import { Teacher } from '../people/teacher.entity.js';
import type { Write } from '../storage/database.js';
import { Database } from '../storage/database.js';
import { Invitation } from './invitation.entity.js';

const DAY_MS = 24 * 3600 * 1000;
const GOOD_FOR_MS = 7 * DAY_MS;

/** What is a teacher's, by table; all of it goes to whoever takes over. Settings of their own do not. */
const THEIRS = ['lesson', 'lesson_folder', 'material', 'shelf_picture', 'shelf_thing', 'class_group'];

/** The teachers of a school: who they are, how they come, and what becomes of what they leave. */
@Injectable()
export class SchoolService {
  constructor(
    @InjectRepository(Teacher) private readonly teachers: Repository<Teacher>,
    @InjectRepository(Invitation) private readonly invitations: Repository<Invitation>,
    private readonly people: PeopleService,
    private readonly database: Database,
  ) {}

  /** All teachers, the first first. */
  async list(): Promise<SchoolTeacher[]> {
    const rows = await this.database.all<Omit<SchoolTeacher, 'admin'> & { admin: number | boolean }>(
      `SELECT id, name, email, admin, created_at AS "createdAt",
         (SELECT count(*) FROM lesson WHERE teacher_id = teacher.id AND deleted_at IS NULL) AS lessons,
         (SELECT coalesce(sum(bytes), 0) FROM material WHERE teacher_id = teacher.id) AS bytes
       FROM teacher ORDER BY created_at`,
    );
    return rows.map((row) => ({ ...row, admin: Boolean(row.admin) }));
  }

  /** Those to whom a teacher can give something. */
  async colleaguesOf(teacherId: string): Promise<Colleague[]> {
    const others = await this.teachers.find({ where: { id: Not(teacherId) }, order: { name: 'ASC' } });
    return others.map(({ id, name }) => ({ id, name }));
  }

  /** A teacher of the school. Throws Problem. */
  async teacher(id: string): Promise<Teacher> {
    const teacher = await this.teachers.findOneBy({ id });
    if (!teacher) throw notFound('This teacher');
    return teacher;
  }

  /** What an invitation's link ends with. Throws Problem where somebody has that address already. */
  async invite(name: string, email: string): Promise<string> {
    await this.refuseTaken(email.toLowerCase());
    return this.invitation(null, name, email.toLowerCase());
  }

  /** What the link ends with by which a teacher chooses a new password. */
  async reset(id: string): Promise<string> {
    const { name, email } = await this.teacher(id);
    return this.invitation(id, name, email);
  }

  private async invitation(teacherId: string | null, name: string, email: string): Promise<string> {
    await this.invitations.delete({ expiresAt: LessThan(Date.now()) });
    // Only the last one to an address is good.
    await this.invitations.delete({ email });
    const token = randomBytes(16).toString('base64url');
    const expiresAt = Date.now() + GOOD_FOR_MS;
    await this.invitations.insert({ tokenHash: sessionOf(token), teacherId, name, email, expiresAt });
    return token;
  }

  async door(token: string): Promise<InvitationDoor> {
    const { name, email, teacherId } = await this.opened(token);
    return { name, email, isReset: teacherId !== null };
  }

  /** Makes a teacher of whoever was invited, or gives one a new password. Throws Problem. */
  async accept(token: string, name: string, password: string): Promise<Teacher> {
    const invitation = await this.opened(token);
    const passwordHash = await hashPassword(password);
    // Whoever is a moment faster has used it up.
    const { affected } = await this.invitations.delete({ tokenHash: invitation.tokenHash });
    if (!affected) throw invitationGone();
    const { teacherId, email } = invitation;
    if (teacherId !== null) {
      await this.teachers.update({ id: teacherId }, { passwordHash });
      await this.people.closeSessionsOf(teacherId);
      return this.teacher(teacherId);
    }
    await this.refuseTaken(email);
    const teacher: Teacher = {
      id: randomUUID(),
      name,
      email,
      passwordHash,
      subject: null,
      admin: false,
      createdAt: Date.now(),
    };
    await this.teachers.insert(teacher);
    return teacher;
  }

  private async opened(token: string): Promise<Invitation> {
    const invitation = await this.invitations.findOneBy({ tokenHash: sessionOf(token) });
    if (!invitation || invitation.expiresAt < Date.now()) throw invitationGone();
    return invitation;
  }

  private async refuseTaken(email: string): Promise<void> {
    if (await this.teachers.existsBy({ email }))
      throw new Problem(
        409,
        'address-taken',
        'Somebody of the school has this e-mail address already. Please look at the list of teachers.',
      );
  }

  /** Says whether a teacher looks after the school. Throws Problem where nobody would be left who does. */
  async setAdmin(id: string, admin: boolean): Promise<void> {
    await this.teacher(id);
    if (!admin) await this.refuseLast(id);
    await this.teachers.update({ id }, { admin });
  }

  /**
   * Takes a teacher out of the school; lessons, classes, folders, groups, documents and stamps go to another one. Throws Problem
   * where nobody would be left who looks after the school.
   */
  async leave(id: string, to: string): Promise<void> {
    if (id === to) throw notFound('This teacher');
    await this.teacher(id);
    await this.teacher(to);
    await this.refuseLast(id);
    await this.people.closeSessionsOf(id);
    await this.database.together(
      ...THEIRS.map((table): Write => [`UPDATE ${table} SET teacher_id = ? WHERE teacher_id = ?`, [to, id]]),
      ['DELETE FROM teacher WHERE id = ?', [id]],
    );
  }

  private async refuseLast(id: string): Promise<void> {
    if (await this.teachers.existsBy({ id: Not(id), admin: true })) return;
    throw new Problem(
      409,
      'last-admin',
      'Nobody else looks after the school. Please let somebody else do that first.',
    );
  }
}

function invitationGone(): Problem {
  return new Problem(
    404,
    'invitation-gone',
    'This invitation has been used, or is over. Please ask for a new one.',
  );
}
