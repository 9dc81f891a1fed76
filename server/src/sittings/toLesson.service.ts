import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { Change, Mark } from '@doodla/core';
import { byOrder, orderedPages } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import { In, Repository } from 'typeorm';
import type { Lesson } from '../lessons/lesson.entity.js';
import { LessonsService } from '../lessons/lessons.service.js';
import { picturesOf } from '../lessons/picturesShown.js';
import { preparedCopies } from '../lessons/preparedCopies.js';
import { LogsService, SERVER } from '../live/logs.service.js';
import { StoredPicture } from '../pictures/picture.entity.js';
import type { Sitting } from './sitting.entity.js';

/** Makes marks and pages of a class prepared ones, which every later class sees. */
@Injectable()
export class ToLessonService {
  constructor(
    private readonly logs: LogsService,
    @InjectRepository(StoredPicture) private readonly pictures: Repository<StoredPicture>,
    private readonly lessons: LessonsService,
  ) {}

  /** Puts pages that were made in a class into its lesson too, without what the class wrote on them. */
  async keepPages({ id }: Sitting, lesson: Lesson, wanted: readonly string[]): Promise<string[]> {
    const prepared = await this.logs.open(lesson.id);
    const pages = orderedPages((await this.logs.open(id)).pages.values()).filter(
      (page) => wanted.includes(page.id) && prepared.pages.get(page.id)?.removed !== false,
    );
    for (const page of pages) {
      const { surface } = page;
      if ('material' in surface && surface.kind !== 'picture')
        await this.lessons.link({ lesson, sitting: undefined, by: lesson.teacherId }, surface.material);
      await this.givePictures(picturesOf(page, []));
    }
    const changes = pages.map((page): Change =>
      prepared.pages.has(page.id)
        ? { do: 'patchPage', page: page.id, set: { removed: false } }
        : { do: 'addPage', page },
    );
    if (changes.length > 0) await this.logs.append(lesson.id, SERVER, { id: randomUUID(), changes });
    return pages.map((page) => page.id);
  }

  /**
   * Copies a class's marks on the lesson's pages into the lesson: all of them, those of one page, or chosen
   * ones. Returns the new marks' ids.
   */
  async copy(
    { id, lessonId }: Sitting,
    teacherId: string,
    { page, marks: chosen }: { page?: string | undefined; marks?: readonly string[] | undefined },
  ): Promise<string[]> {
    const lesson = await this.logs.open(lessonId);
    const written =
      page === undefined ? await (await this.logs.open(id)).allMarks() : await this.onPage(id, page);
    const wanted = written
      .filter((mark) => mark.space === 'class' && lesson.pages.get(mark.page)?.removed === false)
      .filter((mark) => chosen?.includes(mark.id) ?? true)
      .sort(byOrder);
    const above = await this.topOf(lessonId, new Set(wanted.map((mark) => mark.page)));
    const copies = preparedCopies(wanted, { author: teacherId, above });
    await this.givePictures(picturesOf(undefined, wanted));
    const changes = copies.map((mark): Change => ({ do: 'add', mark }));
    if (changes.length > 0) await this.logs.append(lessonId, teacherId, { id: randomUUID(), changes });
    return copies.map((mark) => mark.id);
  }

  /** Pictures of a class become its lesson's, which keeps them when the class is gone. */
  private async givePictures(ids: ReadonlySet<string>): Promise<void> {
    if (ids.size > 0) await this.pictures.update({ id: In([...ids]) }, { sittingId: null });
  }

  private async onPage(log: string, page: string): Promise<Mark[]> {
    return [...(await (await this.logs.open(log)).marksOn(page)).values()];
  }

  /** The order of the highest mark on some pages. */
  private async topOf(log: string, pages: Iterable<string>): Promise<string | null> {
    const marks: Mark[] = [];
    for (const page of pages) marks.push(...(await this.onPage(log, page)));
    return marks.sort(byOrder).at(-1)?.order ?? null;
  }
}
