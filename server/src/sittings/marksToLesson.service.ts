import { Injectable } from '@nestjs/common';
import type { Change } from '@doodla/core';
import { byOrder } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import { preparedCopies } from '../lessons/preparedCopies.js';
import { LogsService } from '../live/logs.service.js';
import type { Sitting } from './sitting.entity.js';

/** Makes marks of a class prepared ones, which every later class sees. */
@Injectable()
export class MarksToLessonService {
  constructor(private readonly logs: LogsService) {}

  /**
   * Copies a class's marks on the lesson's pages into the lesson: all of them, those of one page, or chosen
   * ones. Returns the new marks' ids.
   */
  async copy(
    { id, lessonId }: Sitting,
    teacherId: string,
    { page, marks: chosen }: { page?: string | undefined; marks?: readonly string[] | undefined },
  ): Promise<string[]> {
    const { state } = await this.logs.open(id);
    const lesson = (await this.logs.open(lessonId)).state;
    const wanted = [...state.marks.values()]
      .filter((mark) => {
        const on = lesson.pages.get(mark.page);
        const isLessons = on !== undefined && !on.removed && on.sitting === undefined;
        return mark.space === 'class' && isLessons && (page === undefined || mark.page === page);
      })
      .filter((mark) => chosen?.includes(mark.id) ?? true)
      .sort(byOrder);
    const above = [...lesson.marks.values()].sort(byOrder).at(-1)?.order ?? null;
    const copies = preparedCopies(wanted, { author: teacherId, above });
    const changes = copies.map((mark): Change => ({ do: 'add', mark }));
    if (changes.length > 0) await this.logs.append(lessonId, teacherId, { id: randomUUID(), changes });
    return copies.map((mark) => mark.id);
  }
}
