import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { InvitationDoor } from '@doodla/core';
import { randomBytes, randomUUID } from 'node:crypto';
import { IsNull, LessThan, Repository } from 'typeorm';
import { Problem } from '../http/problem.js';
import type { Operator } from '../people/operator.entity.js';
import { OperatorsService } from '../people/operators.service.js';
import { hashPassword } from '../people/password.js';
import { PeopleService } from '../people/people.service.js';
import { sessionOf } from '../people/sessionToken.js';
import { Teacher } from '../people/teacher.entity.js';
import { SchoolsService } from '../schools/schools.service.js';
import { Invitation } from './invitation.entity.js';

const DAY_MS = 24 * 3600 * 1000;
const GOOD_FOR_MS = 7 * DAY_MS;

/** Somebody who is to come in. */
export interface Invited {
  name: string;
  email: string;
}

/** How somebody who was invited will be known. */
type Known = Pick<Teacher, 'name' | 'passwordHash' | 'subject'>;

/** How people come in: by a link that is good once, for seven days. */
@Injectable()
export class InvitationsService {
  constructor(
    @InjectRepository(Teacher) private readonly teachers: Repository<Teacher>,
    @InjectRepository(Invitation) private readonly invitations: Repository<Invitation>,
    private readonly people: PeopleService,
    private readonly operators: OperatorsService,
    private readonly schools: SchoolsService,
  ) {}

  /** What an invitation's link ends with. Throws Problem where somebody of the school has that address already. */
  async invite(schoolId: string, { name, email }: Invited, admin = false): Promise<string> {
    const address = email.toLowerCase();
    await this.refuseTaken(schoolId, address);
    await this.refuseTooMany(schoolId);
    return this.keep({ teacherId: null, schoolId, admin, name, email: address });
  }

  /** What the link ends with by which a teacher chooses a new password. */
  reset({ id, schoolId, name, email }: Teacher): Promise<string> {
    return this.keep({ teacherId: id, schoolId, admin: false, name, email });
  }

  /** What the link ends with by which somebody looks after the installation. */
  inviteOperator({ name, email }: Invited): Promise<string> {
    return this.keep({ teacherId: null, schoolId: null, admin: false, name, email: email.toLowerCase() });
  }

  private async keep(what: Omit<Invitation, 'tokenHash' | 'expiresAt'>): Promise<string> {
    await this.invitations.delete({ expiresAt: LessThan(Date.now()) });
    // Only the last one to an address is good, in each school.
    await this.invitations.delete({ email: what.email, schoolId: what.schoolId ?? IsNull() });
    const token = randomBytes(16).toString('base64url');
    const expiresAt = Date.now() + GOOD_FOR_MS;
    await this.invitations.insert({ ...what, tokenHash: sessionOf(token), expiresAt });
    return token;
  }

  async door(token: string): Promise<InvitationDoor> {
    const { name, email, teacherId, schoolId } = await this.opened(token);
    const school = schoolId === null ? null : (await this.schools.find(schoolId)).name;
    const isReset = schoolId === null ? (await this.operators.byEmail(email)) !== null : teacherId !== null;
    return { name, email, isReset, school };
  }

  /** Makes of whoever was invited what they were invited to be, or gives them a new password. Throws Problem. */
  async accept(
    token: string,
    name: string,
    password: string,
  ): Promise<{ teacher: Teacher } | { operator: Operator }> {
    const invitation = await this.opened(token);
    const passwordHash = await hashPassword(password);
    // Whoever is a moment faster has used it up.
    const { affected } = await this.invitations.delete({ tokenHash: invitation.tokenHash });
    if (!affected) throw invitationGone();
    const { teacherId, schoolId } = invitation;
    if (schoolId === null) return { operator: await this.acceptOperator(invitation, name, passwordHash) };
    if (teacherId !== null) return { teacher: await this.setPassword(teacherId, passwordHash) };
    return { teacher: await this.admit({ ...invitation, schoolId }, { name, passwordHash, subject: null }) };
  }

  /** An invitation of a school to an address that is still good, or null. */
  async standing(schoolId: string, email: string): Promise<(Invitation & { schoolId: string }) | null> {
    const invitation = await this.invitations.findOneBy({ email, schoolId, teacherId: IsNull() });
    return !invitation || invitation.expiresAt < Date.now() ? null : { ...invitation, schoolId };
  }

  /** Makes a teacher of whoever was invited; the invitation is used up. Throws Problem. */
  async admit({ schoolId, email, admin }: Invitation & { schoolId: string }, known: Known): Promise<Teacher> {
    await this.refuseTaken(schoolId, email);
    await this.refuseTooMany(schoolId);
    const teacher = { id: randomUUID(), schoolId, email, admin, createdAt: Date.now(), ...known };
    await this.teachers.insert(teacher);
    await this.invitations.delete({ email, schoolId });
    return teacher;
  }

  private async acceptOperator({ email }: Invitation, name: string, passwordHash: string): Promise<Operator> {
    const known = await this.operators.byEmail(email);
    if (known) {
      await this.operators.setPassword(known.id, passwordHash);
      return known;
    }
    const operator = { id: randomUUID(), name, email, passwordHash, createdAt: Date.now() };
    await this.operators.add(operator);
    return operator;
  }

  private async setPassword(teacherId: string, passwordHash: string): Promise<Teacher> {
    await this.teachers.update({ id: teacherId }, { passwordHash });
    await this.people.closeSessionsOf(teacherId);
    const teacher = await this.teachers.findOneBy({ id: teacherId });
    if (!teacher) throw invitationGone();
    return teacher;
  }

  private async opened(token: string): Promise<Invitation> {
    const invitation = await this.invitations.findOneBy({ tokenHash: sessionOf(token) });
    if (!invitation || invitation.expiresAt < Date.now()) throw invitationGone();
    return invitation;
  }

  private async refuseTaken(schoolId: string, email: string): Promise<void> {
    if (await this.teachers.existsBy({ schoolId, email }))
      throw new Problem(
        409,
        'address-taken',
        'Somebody of the school has this e-mail address already. Please look at the list of teachers.',
      );
  }

  private async refuseTooMany(schoolId: string): Promise<void> {
    const { maxTeachers } = await this.schools.find(schoolId);
    if (maxTeachers === null || (await this.teachers.countBy({ schoolId })) < maxTeachers) return;
    throw new Problem(
      409,
      'too-many-teachers',
      `All places for teachers of this school are taken; it has ${maxTeachers}. Please ask whoever looks after the server for more.`,
      { maxTeachers },
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
