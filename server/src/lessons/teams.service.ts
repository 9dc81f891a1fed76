import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { Colleague } from '@doodla/core';
import { In, Repository } from 'typeorm';
import { Problem } from '../http/problem.js';
import { Teacher } from '../people/teacher.entity.js';
import type { Write } from '../storage/database.js';
import { Database } from '../storage/database.js';
import type { Lesson } from './lesson.entity.js';
import { LessonTeam } from './lessonTeam.entity.js';

/** Who works on a lesson together with the teacher whose it is: on its pages and what is prepared on them, not in its classes. */
@Injectable()
export class TeamsService {
  private readonly left: ((lesson: string, teacherId: string) => void)[] = [];

  constructor(
    @InjectRepository(LessonTeam) private readonly teams: Repository<LessonTeam>,
    @InjectRepository(Teacher) private readonly teachers: Repository<Teacher>,
    private readonly database: Database,
  ) {}

  /** Calls back with who does not work on a lesson any more. */
  onLeft(listener: (lesson: string, teacherId: string) => void): void {
    this.left.push(listener);
  }

  has(lessonId: string, teacherId: string): Promise<boolean> {
    return this.teams.existsBy({ lessonId, teacherId });
  }

  /** The ids of others' lessons that a teacher works on. */
  async lessonsOf(teacherId: string): Promise<string[]> {
    return (await this.teams.findBy({ teacherId })).map(({ lessonId }) => lessonId);
  }

  async of(lessonId: string): Promise<Colleague[]> {
    const ids = (await this.teams.findBy({ lessonId })).map(({ teacherId }) => teacherId);
    const members = await this.teachers.find({ where: { id: In(ids) }, order: { name: 'ASC' } });
    return members.map(({ id, name }) => ({ id, name }));
  }

  /** Whose those of the lessons are that are not a teacher's own, by lesson. */
  async ownersOf(lessons: readonly Lesson[], me: string): Promise<Map<string, string>> {
    const others = lessons.filter(({ teacherId }) => teacherId !== me);
    if (others.length === 0) return new Map();
    const owners = await this.teachers.findBy({ id: In(others.map(({ teacherId }) => teacherId)) });
    const names = new Map(owners.map(({ id, name }) => [id, name]));
    return new Map(others.map(({ id, teacherId }) => [id, names.get(teacherId) ?? '']));
  }

  /** Says who works on a lesson from now on. Throws Problem where one of them is no teacher of the school. */
  async set({ id, teacherId }: Lesson, wanted: readonly string[]): Promise<void> {
    const members = new Set(wanted.filter((member) => member !== teacherId));
    const { schoolId } = await this.teachers.findOneByOrFail({ id: teacherId });
    if ((await this.teachers.countBy({ schoolId, id: In([...members]) })) < members.size)
      throw new Problem(
        404,
        'no-such-colleague',
        'One of these teachers has left the school. Please look at the list again.',
      );
    const before = (await this.of(id)).map((member) => member.id);
    await this.database.together(
      ['DELETE FROM lesson_team WHERE lesson_id = ?', [id]],
      ...[...members].map((member): Write => ['INSERT INTO lesson_team VALUES (?, ?)', [id, member]]),
    );
    for (const member of before)
      if (!members.has(member)) for (const listener of this.left) listener(id, member);
  }

  /** A teacher leaves a lesson of somebody else's. */
  async leave(lessonId: string, teacherId: string): Promise<void> {
    await this.teams.delete({ lessonId, teacherId });
    for (const listener of this.left) listener(lessonId, teacherId);
  }

  /**
   * Whether a teacher may see a document: their own, or one that was brought into lessons and classes of theirs, or into
   * lessons that they work on. A page that merely names it does not count: anybody who may add pages can name anything.
   */
  async sees(teacherId: string, materialId: string): Promise<boolean> {
    const found = await this.database.all<unknown>(
      `SELECT 1 FROM material WHERE id = ? AND teacher_id = ?
       UNION SELECT 1 FROM lesson_material JOIN lesson ON lesson.id = lesson_id
         WHERE material_id = ? AND (teacher_id = ?
           OR lesson.id IN (SELECT lesson_id FROM lesson_team WHERE teacher_id = ?))
       UNION SELECT 1 FROM sitting_material JOIN sitting ON sitting.id = sitting_id JOIN lesson ON lesson.id = lesson_id
         WHERE material_id = ? AND teacher_id = ?`,
      [materialId, teacherId, materialId, teacherId, teacherId, materialId, teacherId],
    );
    return found.length > 0;
  }
}
