import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { BlankSheet, LessonRequest, MediaForm, Page } from '@doodla/core';
import { FORMATS, orderedPages, ordersBeside } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import { In, IsNull, Not, Repository } from 'typeorm';
import { notFound, Problem } from '../http/problem.js';
import { LogsService, SERVER } from '../live/logs.service.js';
import { Material } from '../materials/material.entity.js';
import type { ReadMaterial } from '../materials/materials.service.js';
import { PdfReader } from '../materials/pdfReader.js';
import type { PictureWish } from '../materials/pdfTask.js';
import type { Sitting } from '../sittings/sitting.entity.js';
import { SittingMaterial } from '../sittings/sittingMaterial.entity.js';
import { SittingsService } from '../sittings/sittings.service.js';
import { FileStore } from '../storage/fileStore.js';
import { Database } from '../storage/database.js';
import { Lesson } from './lesson.entity.js';
import { LessonMaterial } from './lessonMaterial.entity.js';
import { TeamsService } from './teams.service.js';

/** A lesson's picture on the start page. */
const COVER: PictureWish = { index: 0, width: 480, tallest: 2, type: 'png' };
const PLAIN: BlankSheet = {
  ...FORMATS.wide,
  surface: { kind: 'blank', colour: '#ffffff', ruling: 'plain', spacing: 10 },
};
/** Width at which every viewer lays a web page out, page units. */
const WEB_PAGE_WIDTH = 1024;

/** Where pages are put: into a lesson, or into one class on it alone. */
export interface PagePlace {
  lesson: Lesson;
  sitting: Sitting | undefined;
  /** The teacher who puts them there: whose lesson it is, or somebody who works on it. */
  by: string;
}

interface MediaPlace {
  form: MediaForm;
  size?: { width: number; height: number } | undefined;
  after?: string | undefined;
}

/** A page to be made; its id and place are still open. */
type NewPage = Omit<Page, 'id' | 'order' | 'removed'>;

@Injectable()
export class LessonsService {
  /** Covers that were begun since the start, by lesson. */
  private readonly covers = new Map<string, Promise<string | undefined>>();

  /** Lessons whose cover could not be drawn the first time. */
  private readonly failedOnce = new Set<string>();

  constructor(
    @InjectRepository(Lesson) private readonly lessons: Repository<Lesson>,
    @InjectRepository(LessonMaterial) private readonly links: Repository<LessonMaterial>,
    @InjectRepository(SittingMaterial) private readonly sittingLinks: Repository<SittingMaterial>,
    private readonly sittings: SittingsService,
    private readonly logs: LogsService,
    @InjectRepository(Material) private readonly materials: Repository<Material>,
    private readonly pdfs: PdfReader,
    private readonly files: FileStore,
    private readonly database: Database,
    private readonly teams: TeamsService,
  ) {}

  /** A teacher's lessons and those that they work on, last used first. */
  async list(teacherId: string): Promise<Lesson[]> {
    const deletedAt = IsNull();
    const others = { id: In(await this.teams.lessonsOf(teacherId)), deletedAt };
    return this.lessons.find({ where: [{ teacherId, deletedAt }, others], order: { usedAt: 'DESC' } });
  }

  /** What a teacher has deleted and could still have back, last deleted first. */
  trash(teacherId: string): Promise<Lesson[]> {
    return this.lessons.find({
      where: { teacherId, deletedAt: Not(IsNull()) },
      order: { deletedAt: 'DESC' },
    });
  }

  /** The stored picture of a lesson's first page, drawn when it is first asked for; undefined where there is none. */
  async coverOf({ id, coverSha256 }: Lesson): Promise<string | undefined> {
    if (coverSha256 !== null) return coverSha256;
    let cover = this.covers.get(id);
    if (!cover) this.covers.set(id, (cover = this.makeCover(id)));
    return cover;
  }

  /** The teacher's own lesson. Throws Problem where it is deleted or somebody else's. */
  async own(teacherId: string, id: string): Promise<Lesson> {
    const lesson = await this.lessons.findOneBy({ id, teacherId, deletedAt: IsNull() });
    if (lesson) return lesson;
    if (!(await this.teams.has(id, teacherId))) throw notFound('This lesson');
    throw new Problem(
      403,
      'a-colleagues-lesson',
      'This lesson is a colleague’s, so only they can do that. Make a copy to have one of your own.',
    );
  }

  /** A lesson whose pages a teacher may work on: their own, or one that they are asked to. Throws Problem. */
  async editable(teacherId: string, id: string): Promise<Lesson> {
    const lesson = await this.lessons.findOneBy({ id, deletedAt: IsNull() });
    if (!lesson || (lesson.teacherId !== teacherId && !(await this.teams.has(id, teacherId))))
      throw notFound('This lesson');
    return lesson;
  }

  find(id: string): Promise<Lesson | null> {
    return this.lessons.findOneBy({ id });
  }

  /** A new lesson with a page for each page of a document. */
  async createFromPdf(teacherId: string, title: string, read: ReadMaterial): Promise<Lesson> {
    return this.create(teacherId, title, pagesOf(read), read.material);
  }

  /** A new lesson of one blank page; wide and plain where no sheet is given. */
  async createBlank(teacherId: string, sheet: BlankSheet | null): Promise<Lesson> {
    return this.create(teacherId, 'Untitled lesson', [{ title: '', ...(sheet ?? PLAIN) }]);
  }

  /** A new lesson that has no pages yet. */
  async createEmpty(teacherId: string, title: string): Promise<Lesson> {
    return this.create(teacherId, title, []);
  }

  /** A lesson is there once its row is: what comes before it, nobody sees. */
  private async create(
    teacherId: string,
    title: string,
    pages: readonly NewPage[],
    material?: Material,
  ): Promise<Lesson> {
    const now = Date.now();
    const id = randomUUID();
    const lesson: Lesson = {
      id,
      teacherId,
      title: title.slice(0, 200),
      coverSha256: null,
      folderId: null,
      favourite: false,
      tags: null,
      archivedAt: null,
      createdAt: now,
      usedAt: now,
      deletedAt: null,
    };
    await this.addPages({ lesson, sitting: undefined, by: teacherId }, pages, undefined);
    try {
      const row = this.lessons.createQueryBuilder().insert().values(lesson);
      if (!material) await this.database.together(row);
      else {
        const link = { lessonId: id, materialId: material.id };
        await this.database.together(row, this.links.createQueryBuilder().insert().values(link));
      }
    } catch (error) {
      await this.logs.remove([id]);
      throw error;
    }
    return lesson;
  }

  /** Where a teacher puts pages. Throws Problem where the lesson or class is not theirs or has ended. */
  async place(teacherId: string, lessonId: string, sittingId?: string): Promise<PagePlace> {
    if (sittingId === undefined)
      return { lesson: await this.editable(teacherId, lessonId), sitting: undefined, by: teacherId };
    const lesson = await this.own(teacherId, lessonId);
    const sitting = await this.sittings.find(sittingId);
    if (sitting?.lessonId !== lessonId) throw notFound('This class');
    if (sitting.endedAt !== null)
      throw new Problem(409, 'ended-pages', 'This class has ended. Go on with it to bring something in.');
    return { lesson, sitting, by: teacherId };
  }

  /** Puts pages of a document after a page, or at the end. Returns the new pages' ids. */
  async insertPages(place: PagePlace, read: ReadMaterial, after?: string): Promise<string[]> {
    await this.link(place, read.material.id);
    return this.addPages(place, pagesOf(read), after);
  }

  /** Puts a copy of a web page after a page. Its height is set by the first browser that lays it out. */
  insertWebPage(
    place: PagePlace,
    material: Material,
    after?: string,
    width = WEB_PAGE_WIDTH,
  ): Promise<string> {
    const size = { width, height: width };
    return this.insertPage(
      place,
      material,
      { ...size, surface: { kind: 'web', material: material.id } },
      after,
    );
  }

  /** Puts a sound or video file after a page, as wide as a screen and as high as its picture makes it. */
  insertMedia(
    place: PagePlace,
    material: Material,
    { form, size = FORMATS.wide, after }: MediaPlace,
  ): Promise<string> {
    const { width } = FORMATS.wide;
    const height = Math.max(1, Math.round((width * size.height) / size.width));
    const surface = { kind: 'media', material: material.id, form } as const;
    return this.insertPage(place, material, { width, height, surface }, after);
  }

  private async insertPage(
    place: PagePlace,
    material: Material,
    page: Omit<NewPage, 'title'>,
    after: string | undefined,
  ): Promise<string> {
    await this.link(place, material.id);
    const [id] = await this.addPages(place, [{ title: material.name.slice(0, 200), ...page }], after);
    return id!;
  }

  /** Adds pages after one, or at the end; removed pages keep their places. Returns the new pages' ids. */
  private async addPages(
    place: PagePlace,
    pages: readonly NewPage[],
    after: string | undefined,
  ): Promise<string[]> {
    const log = logOf(place);
    const orders = ordersBeside((await this.logs.open(log)).pages.values(), after, { count: pages.length });
    const made = pages.map((page, i): Page => ({
      ...page,
      id: randomUUID(),
      order: orders[i]!,
      removed: false,
    }));
    const changes = made.map((page) => ({ do: 'addPage', page }) as const);
    await this.logs.append(log, SERVER, { id: randomUUID(), changes });
    return made.map(({ id }) => id);
  }

  /** Gives a web page's page a newer copy; what is on it stays. Throws Problem. */
  async replaceWebPage(place: PagePlace, material: Material, page: string): Promise<void> {
    const log = logOf(place);
    if ((await this.logs.open(log)).pages.get(page)?.surface.kind !== 'web') throw notFound('This web page');
    await this.link(place, material.id);
    const set = { surface: { kind: 'web', material: material.id } } as const;
    await this.logs.append(log, SERVER, { id: randomUUID(), changes: [{ do: 'patchPage', page, set }] });
  }

  /**
   * Notes that a document is used in a lesson, or in one class alone, before its pages are there: without them it only
   * keeps the document for longer. Throws Problem where it is neither the lesson's teacher's nor of whoever puts it there.
   */
  async link({ lesson, sitting, by }: PagePlace, materialId: string): Promise<void> {
    const material = await this.materials.findOneBy({ id: materialId });
    const isTheirs = material && [lesson.teacherId, by].includes(material.teacherId);
    // What is the lesson's already may be used in it once more.
    if (!isTheirs && !(await this.links.existsBy({ lessonId: lesson.id, materialId })))
      throw notFound('This document');
    if (sitting)
      await this.sittingLinks.upsert({ sittingId: sitting.id, materialId }, ['sittingId', 'materialId']);
    else await this.links.upsert({ lessonId: lesson.id, materialId }, ['lessonId', 'materialId']);
  }

  /** Says other things of a lesson; what is left out stays. */
  async change({ id }: Lesson, { title, folder, favourite, tags, archived }: LessonRequest): Promise<void> {
    const set = {
      ...(title !== undefined && { title }),
      ...(folder !== undefined && { folderId: folder }),
      ...(favourite !== undefined && { favourite }),
      ...(tags && { tags: [...new Set(tags)] }),
      ...(archived !== undefined && { archivedAt: archived ? Date.now() : null }),
    };
    if (Object.keys(set).length > 0) await this.lessons.update({ id }, set);
  }

  /** Says what a lesson looks like on the start page. */
  async setCover({ id }: Lesson, coverSha256: string): Promise<void> {
    await this.lessons.update({ id }, { coverSha256 });
  }

  async markUsed(id: string): Promise<void> {
    await this.lessons.update({ id }, { usedAt: Date.now() });
  }

  /** Puts a lesson away, and ends its classes; until it is purged it can be brought back. Returns the ended classes. */
  remove({ id }: Lesson): Promise<string[]> {
    const away = this.lessons.createQueryBuilder().update().set({ deletedAt: Date.now() }).where({ id });
    return this.sittings.endAllOf(id, away);
  }

  async restore(teacherId: string, id: string): Promise<void> {
    const { affected } = await this.lessons.update(
      { id, teacherId, deletedAt: Not(IsNull()) },
      { deletedAt: null },
    );
    if (!affected) throw notFound('This lesson');
  }

  private async makeCover(id: string): Promise<string | undefined> {
    try {
      const [first] = orderedPages((await this.logs.open(id)).pages.values());
      if (first?.surface.kind !== 'pdf') return undefined;
      const { sha256 } = await this.materials.findOneByOrFail({ id: first.surface.material });
      const png = await this.pdfs.picture(await this.files.local(sha256), COVER, 'covers');
      const coverSha256 = await this.files.put(png);
      await this.lessons.update({ id }, { coverSha256 });
      return coverSha256;
    } catch {
      // A lesson without a picture is shown without one. There may only have been no time for it: it is tried once more.
      if (!this.failedOnce.has(id)) this.covers.delete(id);
      this.failedOnce.add(id);
      return undefined;
    }
  }
}

/** The log that pages of a place are in. */
export function logOf({ lesson, sitting }: PagePlace): string {
  return sitting?.id ?? lesson.id;
}

function pagesOf({ material, pages }: ReadMaterial): NewPage[] {
  return pages.map(({ index, width, height }) => ({
    title: '',
    width,
    height,
    surface: { kind: 'pdf', material: material.id, index },
  }));
}
