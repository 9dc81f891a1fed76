import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { orderedPages, studentColour } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import { IsNull, Repository } from 'typeorm';
import { Problem } from '../http/problem.js';
import { LessonMaterial } from '../lessons/lessonMaterial.entity.js';
import { LogsService } from '../live/logs.service.js';
import { makeJoinCode, normaliseCode } from './joinCode.js';
import { Sitting } from './sitting.entity.js';
import { Student } from './student.entity.js';

/** Most students in one sitting. */
const MAX_STUDENTS = 200;

@Injectable()
export class SittingsService {
  /** Sittings in memory, since every message of a class asks for its sitting. */
  private readonly known = new Map<string, Sitting>();

  constructor(
    @InjectRepository(Sitting) private readonly sittings: Repository<Sitting>,
    @InjectRepository(Student) private readonly students: Repository<Student>,
    @InjectRepository(LessonMaterial) private readonly links: Repository<LessonMaterial>,
    private readonly logs: LogsService,
  ) {}

  ofLesson(lessonId: string): Promise<Sitting[]> {
    return this.sittings.find({ where: { lessonId }, order: { openedAt: 'DESC' } });
  }

  async find(id: string): Promise<Sitting | null> {
    const known = this.known.get(id);
    if (known) return known;
    const sitting = await this.sittings.findOneBy({ id });
    if (sitting) this.known.set(id, sitting);
    return sitting;
  }

  async usesMaterial(sittingId: string, materialId: string): Promise<boolean> {
    const sitting = await this.find(sittingId);
    return sitting !== null && this.links.existsBy({ lessonId: sitting.lessonId, materialId });
  }

  /** Opens a class on a lesson, on its first page, with pens down. */
  async open(lessonId: string, title: string, code = makeJoinCode()): Promise<Sitting> {
    const { state } = await this.logs.open(lessonId);
    const [first] = orderedPages(state.pages.values());
    if (!first)
      throw new Problem(
        409,
        'no-pages',
        'This lesson has no pages yet. Please add one before you start the class.',
      );
    return this.sittings.save({
      id: randomUUID(),
      lessonId,
      title,
      code: (await this.isFree(code)) ? code : makeJoinCode(),
      pageId: first.id,
      pensUp: false,
      openedAt: Date.now(),
      endedAt: null,
    });
  }

  async end(id: string): Promise<void> {
    await this.change(id, { endedAt: Date.now(), pensUp: false });
  }

  async turn(id: string, pageId: string): Promise<void> {
    await this.change(id, { pageId });
  }

  async setPens(id: string, pensUp: boolean): Promise<void> {
    await this.change(id, { pensUp });
  }

  studentsOf(sittingId: string): Promise<Student[]> {
    return this.students.find({ where: { sittingId }, order: { joinedAt: 'ASC' } });
  }

  /** The open sitting of a code. Throws Problem where there is none. */
  async byCode(code: string): Promise<Sitting> {
    const sitting = await this.sittings.findOneBy({ code: normaliseCode(code), endedAt: IsNull() });
    if (!sitting) {
      throw new Problem(
        404,
        'wrong-code',
        'There is no class with this code. Please check it with your teacher; it may have ended.',
      );
    }
    return sitting;
  }

  /** Lets a student in under a name that nobody else in the class has. */
  async join(sitting: Sitting, name: string): Promise<Student> {
    const present = await this.studentsOf(sitting.id);
    if (present.length >= MAX_STUDENTS)
      throw new Problem(409, 'full', 'This class is full. Please tell your teacher.');
    const taken = present.some((student) => sameName(student.name, name));
    if (taken) {
      throw new Problem(
        409,
        'name-taken',
        `Somebody called ${name} is already in this class. Please add a letter or a number to your name.`,
      );
    }
    return this.students.save({
      id: randomUUID(),
      sittingId: sitting.id,
      name,
      colour: studentColour(present.length),
      joinedAt: Date.now(),
    });
  }

  private async change(id: string, set: Partial<Sitting>): Promise<void> {
    await this.sittings.update({ id, endedAt: IsNull() }, set);
    this.known.delete(id);
  }

  private async isFree(code: string): Promise<boolean> {
    return !(await this.sittings.existsBy({ code, endedAt: IsNull() }));
  }
}

function sameName(a: string, b: string): boolean {
  return a.localeCompare(b, undefined, { sensitivity: 'accent' }) === 0;
}
