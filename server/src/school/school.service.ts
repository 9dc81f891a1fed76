import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { Colleague, SchoolDeed, SchoolTeacher } from '@doodla/core';
import { Not, Repository } from 'typeorm';
import { notFound, Problem } from '../http/problem.js';
import { PeopleService } from '../people/people.service.js';
import { Teacher } from '../people/teacher.entity.js';
import { StoredDeed } from '../schools/schoolDeed.entity.js';
import type { Write } from '../storage/database.js';
import { Database } from '../storage/database.js';

/** What is a teacher's, by table; all of it goes to whoever takes over. Settings of their own do not. */
const THEIRS = ['lesson', 'lesson_folder', 'material', 'shelf_picture', 'shelf_thing', 'class_group'];
const DEEDS_TOLD = 50;

/** A teacher's school, to whom nothing of another one is told. */
type Of = Pick<Teacher, 'schoolId'>;

/** The teachers of a school: who they are, and what becomes of what they leave. */
@Injectable()
export class SchoolService {
  constructor(
    @InjectRepository(Teacher) private readonly teachers: Repository<Teacher>,
    @InjectRepository(StoredDeed) private readonly deeds: Repository<StoredDeed>,
    private readonly people: PeopleService,
    private readonly database: Database,
  ) {}

  /** All teachers, the first first. */
  async list({ schoolId }: Of): Promise<SchoolTeacher[]> {
    const rows = await this.database.all<Omit<SchoolTeacher, 'admin'> & { admin: number | boolean }>(
      `SELECT id, name, email, admin, created_at AS "createdAt",
         (SELECT count(*) FROM lesson WHERE teacher_id = teacher.id AND deleted_at IS NULL) AS lessons,
         (SELECT coalesce(sum(bytes), 0) FROM material WHERE teacher_id = teacher.id) AS bytes
       FROM teacher WHERE school_id = ? ORDER BY created_at`,
      [schoolId],
    );
    return rows.map((row) => ({ ...row, admin: Boolean(row.admin) }));
  }

  /** Those to whom a teacher can give something. */
  async colleaguesOf({ id: me, schoolId }: Teacher): Promise<Colleague[]> {
    const others = await this.teachers.find({ where: { schoolId, id: Not(me) }, order: { name: 'ASC' } });
    return others.map(({ id, name }) => ({ id, name }));
  }

  /** A teacher of the school. Throws Problem. */
  async teacher({ schoolId }: Of, id: string): Promise<Teacher> {
    const teacher = await this.teachers.findOneBy({ id, schoolId });
    if (!teacher) throw notFound('This teacher');
    return teacher;
  }

  /** What whoever looks after the installation did to the school, the last first. */
  async deedsTo({ schoolId }: Of): Promise<SchoolDeed[]> {
    const rows = await this.deeds.find({ where: { schoolId }, order: { at: 'DESC' }, take: DEEDS_TOLD });
    return rows.map(({ at, kind, what, by }) => ({ at, kind, what, by }));
  }

  /** Says whether a teacher looks after the school. Throws Problem where nobody would be left who does. */
  async setAdmin(of: Of, id: string, admin: boolean): Promise<void> {
    await this.teacher(of, id);
    if (!admin) await this.refuseLast(of, id);
    await this.teachers.update({ id }, { admin });
  }

  /**
   * Takes a teacher out of the school; lessons, classes, folders, groups, documents and stamps go to another one. Throws Problem
   * where nobody would be left who looks after the school.
   */
  async leave(of: Of, id: string, to: string): Promise<void> {
    if (id === to) throw notFound('This teacher');
    await this.teacher(of, id);
    await this.teacher(of, to);
    await this.refuseLast(of, id);
    await this.people.closeSessionsOf(id);
    await this.database.together(
      ...THEIRS.map((table): Write => [`UPDATE ${table} SET teacher_id = ? WHERE teacher_id = ?`, [to, id]]),
      ['DELETE FROM teacher WHERE id = ?', [id]],
    );
  }

  private async refuseLast({ schoolId }: Of, id: string): Promise<void> {
    if (await this.teachers.existsBy({ schoolId, id: Not(id), admin: true })) return;
    throw new Problem(
      409,
      'last-admin',
      'Nobody else looks after the school. Please let somebody else do that first.',
    );
  }
}
