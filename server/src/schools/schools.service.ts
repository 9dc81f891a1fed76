import type { OnModuleInit } from '@nestjs/common';
import { Injectable, Logger } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { LimitName, SchoolLimits } from '@doodla/core';
import { LIMITS } from '@doodla/core';
import { LRUCache } from 'lru-cache';
import { Repository } from 'typeorm';
import { logFailure } from '../http/failures.js';
import { notFound, Problem } from '../http/problem.js';
import { Jobs } from '../processes/jobs.js';
import { Peers } from '../processes/peers.js';
import { Settings } from '../settings/settings.js';
import { Database } from '../storage/database.js';
import { FIRST_SCHOOL, School } from './school.entity.js';

/** A school's own sign-in (OpenID Connect). */
export interface SchoolOidc {
  issuer: string;
  clientId: string;
  clientSecret: string | undefined;
  /** Whether an address counts as somebody's where it does not say that it has checked it. */
  trustEmail: boolean;
}

const READ_AGAIN_MS = 60_000;
/** Lessons whose schools are known by heart. */
const MOST_LESSONS = 10_000;
const NAMES = Object.keys(LIMITS) as LimitName[];

/** The schools of this installation, each with its limits: as whoever looks after it has set them, else as the server's settings say. */
@Injectable()
export class SchoolsService implements OnModuleInit {
  private readonly logger = new Logger('Schools');
  /** In memory, since every file that comes in asks for them. */
  private readonly known = new Map<string, School>();
  private readonly ofLessons = new LRUCache<string, string>({ max: MOST_LESSONS });

  constructor(
    private readonly settings: Settings,
    @InjectRepository(School) private readonly schools: Repository<School>,
    private readonly database: Database,
    private readonly peers: Peers,
    private readonly jobs: Jobs,
  ) {}

  async onModuleInit(): Promise<void> {
    await this.read();
    this.peers.on('schools', () => {
      this.read().catch((error: unknown) => logFailure(this.logger, 'Schools could not be read anew', error));
    });
    // What the others tell is lost while Redis is away.
    this.jobs.everywhere('read schools anew', READ_AGAIN_MS, () => this.read());
  }

  limitsOf(schoolId: string): SchoolLimits {
    const school = this.known.get(schoolId);
    const limit = (name: LimitName) => school?.[name] ?? this.settings[name];
    return {
      maxUploadMb: limit('maxUploadMb'),
      maxPages: limit('maxPages'),
      retentionDays: limit('retentionDays'),
      tellOfRecording: school?.tellOfRecording ?? false,
    };
  }

  /** Limits of a teacher's school. Throws Problem where there is no such teacher. */
  limitsOfTeacher(teacherId: string): Promise<SchoolLimits> {
    return this.ofWhose('SELECT school_id AS school FROM teacher WHERE id = ?', teacherId);
  }

  /** Limits of the school whose class it is. Throws Problem. */
  limitsOfSitting(sittingId: string): Promise<SchoolLimits> {
    return this.ofWhose(
      `SELECT school_id AS school FROM sitting JOIN lesson ON lesson.id = lesson_id
         JOIN teacher ON teacher.id = lesson.teacher_id WHERE sitting.id = ?`,
      sittingId,
    );
  }

  /** The schools that keep classes for so many days, by days. */
  byRetention(): ReadonlyMap<number, readonly string[]> {
    const schools = new Map<number, string[]>();
    for (const id of this.known.keys()) {
      const { retentionDays } = this.limitsOf(id);
      schools.set(retentionDays, [...(schools.get(retentionDays) ?? []), id]);
    }
    return schools;
  }

  private async ofWhose(query: string, id: string): Promise<SchoolLimits> {
    const [row] = await this.database.all<{ school: string }>(query, [id]);
    if (!row) throw notFound('This school');
    return this.limitsOf(row.school);
  }

  async setName(schoolId: string, name: string): Promise<void> {
    await this.schools.update({ id: schoolId }, { name });
    await this.changed();
  }

  async setLimits(schoolId: string, limits: SchoolLimits): Promise<void> {
    const wanted = Object.fromEntries(NAMES.map((name) => [name, limits[name]]));
    await this.schools.update({ id: schoolId }, { ...wanted, tellOfRecording: limits.tellOfRecording });
    await this.changed();
  }

  /** The school of a lesson, which never goes to another one. Throws Problem. */
  async ofLesson(lessonId: string): Promise<string> {
    const known = this.ofLessons.get(lessonId);
    if (known !== undefined) return known;
    const [row] = await this.database.all<{ school: string }>(
      'SELECT school_id AS school FROM lesson JOIN teacher ON teacher.id = teacher_id WHERE lesson.id = ?',
      [lessonId],
    );
    if (!row) throw notFound('This lesson');
    this.ofLessons.set(lessonId, row.school);
    return row.school;
  }

  /** Throws Problem where the school whose lesson it is has been closed. */
  async checkOpen(lessonId: string): Promise<void> {
    const [closed] = await this.database.all(
      `SELECT 1 FROM lesson JOIN teacher ON teacher.id = teacher_id JOIN tenant ON tenant.id = school_id
       WHERE lesson.id = ? AND closed_at IS NOT NULL`,
      [lessonId],
    );
    if (closed) throw schoolClosed();
  }

  /** The school whose sign-in page ends with a word. Throws Problem. */
  async bySlug(slug: string): Promise<School> {
    const school = await this.schools.findOneBy({ slug: slug.toLowerCase() });
    if (!school) throw notFound('This school');
    return school;
  }

  /** The school of an id. Throws Problem. */
  async find(id: string): Promise<School> {
    const school = await this.schools.findOneBy({ id });
    if (!school) throw notFound('This school');
    return school;
  }

  /** Whether a school has accounts of its own to sign in with. */
  hasSignIn(schoolId: string): boolean {
    return this.signInOf(schoolId) !== undefined;
  }

  /** A school's own sign-in; that of the settings is the first school's. */
  signInOf(schoolId: string): SchoolOidc | undefined {
    const school = this.known.get(schoolId);
    if (school?.oidcIssuer != null && school.oidcClientId !== null)
      return {
        issuer: school.oidcIssuer,
        clientId: school.oidcClientId,
        clientSecret: school.oidcClientSecret ?? undefined,
        trustEmail: school.oidcTrustEmail,
      };
    const { oidcIssuer, oidcClientId, oidcClientSecret, oidcTrustEmail } = this.settings;
    if (schoolId !== FIRST_SCHOOL || oidcIssuer === undefined || oidcClientId === undefined) return undefined;
    return {
      issuer: oidcIssuer,
      clientId: oidcClientId,
      clientSecret: oidcClientSecret,
      trustEmail: oidcTrustEmail,
    };
  }

  /** All schools, the first first. */
  all(): Promise<School[]> {
    return this.schools.find({ order: { createdAt: 'ASC', id: 'ASC' } });
  }

  count(): Promise<number> {
    return this.schools.count();
  }

  /** Reads schools anew, here and at the other processes, after one of them was changed. */
  async changed(): Promise<void> {
    await this.read();
    this.peers.tell('schools');
  }

  private async read(): Promise<void> {
    const schools = await this.schools.find();
    this.known.clear();
    for (const school of schools) this.known.set(school.id, school);
  }
}

/** Nobody comes in at a school that the installation has closed. */
export function schoolClosed(): Problem {
  return new Problem(
    403,
    'school-closed',
    'This school has been closed on this server. Please ask whoever looks after the server.',
  );
}
