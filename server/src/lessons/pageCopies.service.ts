import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { Change, Mark, Page } from '@doodla/core';
import { byOrder, orderedPages, ordersBeside } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import { In, Repository } from 'typeorm';
import { notFound } from '../http/problem.js';
import { picturesOf, withMaterials } from './picturesShown.js';
import { preparedCopies } from './preparedCopies.js';
import { LogsService } from '../live/logs.service.js';
import { MaterialsService } from '../materials/materials.service.js';
import { Leases } from '../processes/leases.js';
import { StoredPicture } from '../pictures/picture.entity.js';
import { RoomService } from '../schools/room.service.js';
import { SittingsService } from '../sittings/sittings.service.js';
import type { Lesson } from './lesson.entity.js';
import { LessonsService } from './lessons.service.js';
import { TeamsService } from './teams.service.js';

export interface PageSource {
  lesson: string;
  page: string;
  /** The class whose marks come along, beside the prepared ones. */
  sitting?: string | undefined;
}

/** Takes pages over into other lessons, with their marks, pictures and documents. */
@Injectable()
export class PageCopiesService {
  constructor(
    private readonly lessons: LessonsService,
    private readonly sittings: SittingsService,
    private readonly logs: LogsService,
    private readonly materials: MaterialsService,
    private readonly teams: TeamsService,
    private readonly leases: Leases,
    @InjectRepository(StoredPicture) private readonly pictures: Repository<StoredPicture>,
    private readonly room: RoomService,
  ) {}

  /** Returns the new page's id, which is that of `pages` where others name it too. Throws Problem where the teacher has no such lesson, page or class. */
  async copy(
    teacherId: string,
    source: PageSource,
    to: string,
    pages: ReadonlyMap<string, string> = new Map(),
  ): Promise<string> {
    if (source.sitting === undefined) await this.lessons.editable(teacherId, source.lesson);
    else await this.lessons.own(teacherId, source.lesson);
    const target = await this.lessons.editable(teacherId, to);
    await this.checkSitting(source);
    await this.leases.takeOver(to);
    const page = (await this.logs.open(source.sitting ?? source.lesson)).pages.get(source.page);
    if (!page || page.removed) throw notFound('This page');
    const marks = await this.marksOf(source);
    const renamed = await this.takePictures(source.lesson, to, picturesOf(page, marks));
    const { surface } = page;
    if ('material' in surface && surface.kind !== 'picture') {
      if (!(await this.teams.sees(teacherId, surface.material))) throw notFound('This document');
      const own = await this.materials.ownNote(surface.material, teacherId);
      await this.lessons.link({ lesson: target, sitting: undefined, by: teacherId }, own);
      renamed.set(surface.material, own);
    }
    const { title, width, height } = page;
    const copy: Page = {
      id: pages.get(source.page) ?? randomUUID(),
      order: await this.orderAtEnd(to),
      title,
      width,
      height,
      surface: withMaterials(surface, renamed),
      removed: false,
    };
    const changes: Change[] = [
      { do: 'addPage', page: copy },
      ...preparedCopies(marks, { author: teacherId, page: copy.id, pictures: renamed, pages }).map(
        (mark): Change => ({
          do: 'add',
          mark,
        }),
      ),
    ];
    await this.logs.append(to, teacherId, { id: randomUUID(), changes });
    return copy.id;
  }

  /** A new lesson with copies of all pages of one and what is prepared on them. Throws Problem. */
  async copyLesson(teacherId: string, id: string, title: string): Promise<Lesson> {
    const from = await this.lessons.editable(teacherId, id);
    await this.room.check(teacherId);
    const copy = await this.lessons.createEmpty(teacherId, title);
    try {
      const pages = orderedPages((await this.logs.open(id)).pages.values());
      const renamed = new Map(pages.map((page) => [page.id, randomUUID()]));
      for (const { id: page } of pages) await this.copy(teacherId, { lesson: id, page }, copy.id, renamed);
      const { folderId, tags } = from;
      if (from.teacherId === teacherId)
        await this.lessons.change(copy, { folder: folderId, tags: tags ?? [] });
      return await this.lessons.own(teacherId, copy.id);
    } catch (error) {
      await this.lessons.remove(copy);
      throw error;
    }
  }

  private async checkSitting({ lesson, sitting }: PageSource): Promise<void> {
    if (sitting !== undefined && (await this.sittings.find(sitting))?.lessonId !== lesson)
      throw notFound('This class');
  }

  private async marksOf({ lesson, page, sitting }: PageSource): Promise<Mark[]> {
    const marks: Mark[] = [];
    for (const log of sitting === undefined ? [lesson] : [lesson, sitting]) {
      const here = [...(await (await this.logs.open(log)).marksOn(page)).values()];
      marks.push(...here.filter((mark) => mark.space === 'class').sort(byOrder));
    }
    return marks;
  }

  /** Gives pictures of one lesson to another as well. Returns new ids by old. */
  private async takePictures(
    from: string,
    to: string,
    ids: ReadonlySet<string>,
  ): Promise<Map<string, string>> {
    const pictures = await this.pictures.findBy({ id: In([...ids]), lessonId: from });
    const renamed = new Map(pictures.map(({ id }) => [id, randomUUID()]));
    const copies = pictures.map((picture) => ({
      ...picture,
      id: renamed.get(picture.id)!,
      lessonId: to,
      sittingId: null,
    }));
    if (copies.length > 0) await this.pictures.insert(copies);
    return renamed;
  }

  private async orderAtEnd(lesson: string): Promise<string> {
    return ordersBeside((await this.logs.open(lesson)).pages.values(), undefined)[0]!;
  }
}
