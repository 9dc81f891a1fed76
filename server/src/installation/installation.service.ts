import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { SchoolDeedKind } from '@doodla/core';
import { INSTALLATION } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import { Not, Repository } from 'typeorm';
import { Problem } from '../http/problem.js';
import { PurgeService } from '../lessons/purge.service.js';
import type { Operator } from '../people/operator.entity.js';
import { PeopleService } from '../people/people.service.js';
import { Teacher } from '../people/teacher.entity.js';
import { FIRST_SCHOOL, School } from '../schools/school.entity.js';
import { StoredDeed } from '../schools/schoolDeed.entity.js';
import { SchoolsService } from '../schools/schools.service.js';
import { InvitationsService } from '../school/invitations.service.js';
import type { Invited } from '../school/invitations.service.js';
import { Settings } from '../settings/settings.js';
import { Database } from '../storage/database.js';
import type { NewSchoolDto, SchoolChangeDto, SchoolSignInDto } from './installation.dto.js';

/** Longer ago than anything that can be brought back. */
const LONG_AGO = 1;

/** What can be done with the schools of the installation, none of which shows what is in them. Each school sees what was done. */
@Injectable()
export class InstallationService {
  constructor(
    @InjectRepository(School) private readonly rows: Repository<School>,
    @InjectRepository(StoredDeed) private readonly deeds: Repository<StoredDeed>,
    @InjectRepository(Teacher) private readonly teachers: Repository<Teacher>,
    private readonly schools: SchoolsService,
    private readonly invitations: InvitationsService,
    private readonly people: PeopleService,
    private readonly purges: PurgeService,
    private readonly database: Database,
    private readonly settings: Settings,
  ) {}

  /** Makes a school. Returns what the link ends with by which its first teacher comes in. Throws Problem. */
  async make(by: Operator, { name, slug, adminName, adminEmail }: NewSchoolDto): Promise<string> {
    await this.refuseTakenSlug(slug);
    const school: School = {
      ...{ id: randomUUID(), name, slug, createdAt: Date.now(), closedAt: null },
      ...{ maxBytes: null, maxTeachers: null },
      ...{ maxUploadMb: null, maxPages: null, retentionDays: null, tellOfRecording: false },
      ...{ oidcIssuer: null, oidcClientId: null, oidcClientSecret: null, oidcTrustEmail: false },
    };
    await this.rows.insert(school);
    await this.schools.changed();
    await this.note(by, school.id, 'made', name);
    return this.inviteAdmin(by, school.id, { name: adminName, email: adminEmail });
  }

  /** Invites somebody to look after a school. Returns what the link ends with. Throws Problem. */
  async inviteAdmin(by: Operator, id: string, who: Invited): Promise<string> {
    await this.schools.find(id);
    const token = await this.invitations.invite(id, who, true);
    await this.note(by, id, 'invited', who.email);
    return token;
  }

  /** Throws Problem. */
  async change(by: Operator, id: string, wanted: SchoolChangeDto): Promise<void> {
    const school = await this.schools.find(id);
    const { name, slug, maxBytes, maxTeachers, signIn, closed } = wanted;
    if (slug !== undefined) await this.refuseTakenSlug(slug, id);
    const set: Partial<School> = {
      ...(name !== undefined && { name }),
      ...(slug !== undefined && { slug }),
      ...(maxBytes !== undefined && { maxBytes }),
      ...(maxTeachers !== undefined && { maxTeachers }),
      ...(signIn !== undefined && this.signInColumns(school, signIn)),
      ...(closed !== undefined && { closedAt: closed ? (school.closedAt ?? Date.now()) : null }),
    };
    if (Object.keys(set).length === 0) return;
    await this.rows.update({ id }, set);
    await this.schools.changed();
    if (closed) await this.signEverybodyOut(id);
    const isNamed = name !== undefined || slug !== undefined;
    if (isNamed) await this.note(by, id, 'named', `${set.name ?? school.name} (${set.slug ?? school.slug})`);
    if (maxBytes !== undefined || maxTeachers !== undefined) await this.note(by, id, 'given', '');
    if (signIn !== undefined) await this.note(by, id, 'signIn', signIn?.issuer ?? '');
    if (closed !== undefined) await this.note(by, id, closed ? 'closed' : 'opened', '');
  }

  /**
   * Takes a closed school away with all that is in it, for good; files go a day later, as always. Can be done again where it was
   * broken off. Throws Problem.
   */
  async erase(id: string, typedName: string): Promise<void> {
    const { name, closedAt } = await this.schools.find(id);
    if (id === FIRST_SCHOOL)
      throw new Problem(
        409,
        'first-school-stays',
        'The first school of the installation stays. It can be closed, and its teachers can be taken out.',
      );
    if (closedAt === null)
      throw new Problem(
        409,
        'school-is-open',
        'Please close the school first, so that nobody is at work in it.',
      );
    if (typedName !== name)
      throw new Problem(
        409,
        'other-school-name',
        'That is not the name of this school. Please type it as it stands there.',
      );
    await this.database.together([
      'UPDATE lesson SET deleted_at = ? WHERE teacher_id IN (SELECT id FROM teacher WHERE school_id = ?)',
      [LONG_AGO, id],
    ]);
    await this.purges.purge();
    await this.database.together(
      ['DELETE FROM teacher WHERE school_id = ?', [id]],
      ['DELETE FROM invitation WHERE school_id = ?', [id]],
      ['DELETE FROM tenant WHERE id = ?', [id]],
    );
    await this.schools.changed();
  }

  private signInColumns(
    school: School,
    signIn: SchoolSignInDto | null,
  ): Pick<School, 'oidcIssuer' | 'oidcClientId' | 'oidcClientSecret' | 'oidcTrustEmail'> {
    if (signIn === null)
      return { oidcIssuer: null, oidcClientId: null, oidcClientSecret: null, oidcTrustEmail: false };
    if (this.settings.publicUrl === undefined)
      throw new Problem(
        409,
        'no-public-url',
        'A sign-in sends people back to the address of this server. Please set DOODLA_PUBLIC_URL and start it again.',
      );
    const { issuer, clientId, clientSecret, trustEmail } = signIn;
    // A secret never goes to another issuer than the one that it was given for.
    const before = school.oidcIssuer === issuer ? school.oidcClientSecret : null;
    return {
      oidcIssuer: issuer,
      oidcClientId: clientId,
      oidcClientSecret: clientSecret ?? before,
      oidcTrustEmail: trustEmail,
    };
  }

  private async signEverybodyOut(schoolId: string): Promise<void> {
    for (const { id } of await this.teachers.findBy({ schoolId })) await this.people.closeSessionsOf(id);
  }

  private async note(by: Operator, schoolId: string, kind: SchoolDeedKind, what: string): Promise<void> {
    await this.deeds.insert({ id: randomUUID(), schoolId, at: Date.now(), kind, what, by: by.name });
  }

  private async refuseTakenSlug(slug: string, but = ''): Promise<void> {
    if (slug === INSTALLATION || (await this.rows.existsBy({ slug, id: Not(but) })))
      throw new Problem(
        409,
        'slug-taken',
        'Another school has this word in its address already. Please choose another one.',
      );
  }
}
