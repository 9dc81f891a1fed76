import { Injectable } from '@nestjs/common';
import type { Actor, LogRef, Situation } from '@doodla/core';
import { FREE } from '@doodla/core';
import { DevicesService } from '../devices/devices.service.js';
import type { Lesson } from '../lessons/lesson.entity.js';
import { LessonsService } from '../lessons/lessons.service.js';
import type { Visitor } from '../people/visitor.js';
import { Problem, notFound } from '../http/problem.js';
import type { Sitting } from '../sittings/sitting.entity.js';
import { ideasOf, rulesOf, SittingsService } from '../sittings/sittings.service.js';
import { SERVER } from './logs.service.js';

export interface Access {
  actor: Actor;
  /** Whether the visitor may write into the log at all; a lesson's is the teacher's alone. */
  writes: boolean;
  /** The lesson whose prepared marks are answered in a class. */
  lesson?: string;
  situation(): Promise<Situation>;
}

/** Decides who may open which log, and what the state of the class allows in it. */
@Injectable()
export class AccessService {
  constructor(
    private readonly lessons: LessonsService,
    private readonly sittings: SittingsService,
    private readonly devices: DevicesService,
  ) {}

  /** Throws Problem where the visitor may not even look. */
  async to(log: LogRef, visitor: Visitor): Promise<Access> {
    const actor = await this.actorOf(visitor);
    return log.kind === 'lesson'
      ? this.toLesson(log.id, visitor, actor)
      : this.toSitting(log.id, visitor, actor);
  }

  /** Throws Problem unless the visitor is the teacher of the sitting. */
  async teaches(sittingId: string, visitor: Visitor): Promise<void> {
    const { actor } = await this.to({ kind: 'sitting', id: sittingId }, visitor);
    if (actor.role !== 'teacher') throw new Problem(403, 'not-allowed', 'Only the teacher can do that.');
  }

  private async toLesson(id: string, visitor: Visitor, actor: Actor): Promise<Access> {
    if (visitor.role === 'teacher') await this.lessons.editable(visitor.teacher.id, id);
    else if (!(await this.isIn(id, visitor))) throw notFound('This lesson');
    const writes = visitor.role === 'teacher' || visitor.role === 'helper';
    return { actor, writes, situation: () => Promise.resolve(FREE) };
  }

  /** Whether a lesson is that of the visitor's class, or the one into which a companion brings pages. */
  private async isIn(lesson: string, visitor: Visitor): Promise<boolean> {
    if (visitor.role === 'helper') return visitor.lesson === lesson;
    return 'sitting' in visitor && (await this.sittings.find(visitor.sitting))?.lessonId === lesson;
  }

  private async toSitting(id: string, visitor: Visitor, actor: Actor): Promise<Access> {
    const sitting = await this.sittings.find(id);
    if (!sitting) throw notFound('This class');
    if (visitor.role === 'teacher') await this.lessons.own(visitor.teacher.id, sitting.lessonId);
    else if (!('sitting' in visitor) || visitor.sitting !== id) throw notFound('This class');
    const limited = actor.role === 'student' ? await this.limited(sitting, actor) : actor;
    const situation = () => this.situationOf(id, actor);
    return { actor: limited, writes: true, lesson: sitting.lessonId, situation };
  }

  /** Who acts: a display or pad is a pen of its teacher. Throws Problem for nobody, and for a device that is out. */
  private async actorOf(visitor: Visitor): Promise<Actor> {
    if (visitor.role === 'teacher') return { id: visitor.teacher.id, role: 'teacher', tables: [] };
    if (visitor.role === 'student') return { id: visitor.student, role: 'student', tables: [] };
    if (visitor.role === 'nobody')
      throw new Problem(401, 'join-first', 'Please join the class or sign in first.');
    const lesson = (await this.devices.present(visitor.device)) && (await this.lessonOf(visitor));
    if (!lesson)
      throw new Problem(401, 'out', 'This device is no longer connected. Please ask for a new code.');
    return { id: lesson.teacherId, role: 'teacher', tables: [] };
  }

  private async lessonOf(visitor: Extract<Visitor, { device: string }>): Promise<Lesson | null> {
    if (visitor.role === 'helper') return this.lessons.find(visitor.lesson);
    const sitting = await this.sittings.find(visitor.sitting);
    return sitting && this.lessons.find(sitting.lessonId);
  }

  private async situationOf(sittingId: string, { id, role }: Actor): Promise<Situation> {
    const sitting = await this.sittings.find(sittingId);
    if (!sitting) throw notFound('This class');
    const own = role === 'student' ? sitting.pens?.[id] : undefined;
    return {
      pensUp: own ? own === 'up' : sitting.pensUp,
      ended: sitting.endedAt !== null,
      full: false,
      freedom: rulesOf(sitting).freedom,
    };
  }

  /** A student as one of this class: at which tables, and what is to be seen. */
  private async limited(sitting: Sitting, actor: Actor): Promise<Actor> {
    const tables = (sitting.tables ?? []).filter(({ students }) => students.includes(actor.id));
    const reads = await this.readsIn(sitting);
    const { copy } = sitting;
    return {
      ...actor,
      tables: tables.map(({ id }) => id),
      ...(reads && { reads }),
      ...(sitting.ideas && { ideas: ideasOf(sitting) }),
      ...(copy && { shown: { page: copy.page, space: copy.space } }),
    };
  }

  /** Whose marks students see of what is the class's; undefined for everybody's. */
  private async readsIn(sitting: Sitting): Promise<Actor['reads']> {
    const { seeMarks, hidden } = rulesOf(sitting);
    if (seeMarks) return hidden.length > 0 ? { not: hidden } : undefined;
    const lesson = await this.lessons.find(sitting.lessonId);
    return { only: [SERVER, ...(lesson ? [lesson.teacherId] : [])] };
  }
}
