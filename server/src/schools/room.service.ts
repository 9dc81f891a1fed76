import { Injectable } from '@nestjs/common';
import type { LogRef } from '@doodla/core';
import { notFound } from '../http/problem.js';
import { schoolFull } from '../http/schoolFull.js';
import type { UploadLimits } from '../http/upload.js';
import { Database } from '../storage/database.js';
import { SchoolsService } from './schools.service.js';

/** What a school has brought in, bytes: its teachers' documents and recordings, and the pictures on pages and shelves. */
export const BYTES_OF_SCHOOL = `(
  (SELECT coalesce(sum(bytes), 0) FROM material JOIN teacher ON teacher.id = teacher_id
     WHERE school_id = tenant.id)
  + (SELECT coalesce(sum(bytes), 0) FROM picture JOIN lesson ON lesson.id = picture.lesson_id
     JOIN teacher ON teacher.id = teacher_id WHERE school_id = tenant.id)
  + (SELECT coalesce(sum(bytes), 0) FROM explanation_piece
     JOIN explanation_take ON explanation_take.id = take_id
     JOIN explanation ON explanation.id = explanation_id
     LEFT JOIN sitting ON sitting.id = explanation.sitting_id
     JOIN lesson ON lesson.id = coalesce(explanation.lesson_id, sitting.lesson_id)
     JOIN teacher ON teacher.id = teacher_id WHERE school_id = tenant.id)
  + (SELECT coalesce(sum(bytes), 0) FROM shelf_thing_picture
     JOIN shelf_thing ON shelf_thing.id = thing_id
     JOIN teacher ON teacher.id = teacher_id WHERE school_id = tenant.id))`;

/** The room that the installation gives a school. */
@Injectable()
export class RoomService {
  constructor(
    private readonly database: Database,
    private readonly schools: SchoolsService,
  ) {}

  /**
   * How large a file may be that comes in for a teacher: as their school says, or so many megabytes, and no larger than there
   * is room. Throws Problem where there is none.
   */
  async forUpload(teacherId: string, maxMb?: number): Promise<UploadLimits> {
    const room = await this.left(teacherId);
    if (room <= 0) throw schoolFull();
    return { maxMb: maxMb ?? (await this.schools.limitsOfTeacher(teacherId)).maxUploadMb, room };
  }

  /** As `forUpload`, for whoever's lesson it is. */
  async onLesson(lessonId: string, maxMb: number): Promise<UploadLimits> {
    return this.forUpload(
      await this.teacherOf('SELECT teacher_id AS id FROM lesson WHERE id = ?', lessonId),
      maxMb,
    );
  }

  /** Throws Problem where a teacher's school has no room for so many bytes more. */
  async check(teacherId: string, bytes = 1): Promise<void> {
    if ((await this.left(teacherId)) < bytes) throw schoolFull();
  }

  /** As `check`, for whoever's lesson or class it is. */
  async checkLog({ kind, id }: LogRef, bytes: number): Promise<void> {
    const query =
      kind === 'lesson'
        ? 'SELECT teacher_id AS id FROM lesson WHERE id = ?'
        : 'SELECT teacher_id AS id FROM lesson JOIN sitting ON lesson_id = lesson.id WHERE sitting.id = ?';
    await this.check(await this.teacherOf(query, id), bytes);
  }

  private async teacherOf(query: string, id: string): Promise<string> {
    const [row] = await this.database.all<{ id: string }>(query, [id]);
    if (!row) throw notFound('This lesson');
    return row.id;
  }

  /** What a school has brought in, bytes. */
  async used(schoolId: string): Promise<number> {
    const [row] = await this.database.all<{ bytes: number | string }>(
      `SELECT ${BYTES_OF_SCHOOL} AS bytes FROM tenant WHERE tenant.id = ?`,
      [schoolId],
    );
    return Number(row?.bytes ?? 0);
  }

  /** Bytes; without end where the installation sets none. */
  private async left(teacherId: string): Promise<number> {
    const [most] = await this.database.all<{ id: string; bytes: number | null }>(
      `SELECT tenant.id, max_bytes AS bytes FROM tenant JOIN teacher ON school_id = tenant.id WHERE teacher.id = ?`,
      [teacherId],
    );
    if (most?.bytes == null) return Infinity;
    return most.bytes - (await this.used(most.id));
  }
}
