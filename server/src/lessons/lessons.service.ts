import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { LogState, MediaForm, Page } from '@doodla/core';
import { byOrder, FORMATS, orderBetween, orderedPages, orderSequence } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import { IsNull, Not, Repository } from 'typeorm';
import { notFound } from '../http/problem.js';
import { LogsService } from '../live/logs.service.js';
import { Material } from '../materials/material.entity.js';
import type { ReadMaterial } from '../materials/materials.service.js';
import { PdfReader } from '../materials/pdfReader.js';
import { FileStore } from '../storage/fileStore.js';
import { Lesson } from './lesson.entity.js';
import { LessonMaterial } from './lessonMaterial.entity.js';

const COVER_WIDTH = 480;
/** Width at which every viewer lays a web page out, page units. */
const WEB_PAGE_WIDTH = 1024;

@Injectable()
export class LessonsService {
  /** Lessons whose cover has been begun since the start. */
  private readonly covered = new Set<string>();

  constructor(
    @InjectRepository(Lesson) private readonly lessons: Repository<Lesson>,
    @InjectRepository(LessonMaterial) private readonly links: Repository<LessonMaterial>,
    private readonly logs: LogsService,
    @InjectRepository(Material) private readonly materials: Repository<Material>,
    private readonly pdfs: PdfReader,
    private readonly files: FileStore,
  ) {}

  /** A teacher's lessons, last used first. Covers that are missing are drawn from now on. */
  async list(teacherId: string): Promise<Lesson[]> {
    const where = { teacherId, deletedAt: IsNull() };
    const lessons = await this.lessons.find({ where, order: { usedAt: 'DESC' } });
    for (const { id, coverSha256 } of lessons) if (coverSha256 === null) void this.makeCover(id);
    return lessons;
  }

  /** The teacher's own lesson. Throws Problem where it is deleted or somebody else's. */
  async own(teacherId: string, id: string): Promise<Lesson> {
    const lesson = await this.lessons.findOneBy({ id, teacherId, deletedAt: IsNull() });
    if (!lesson) throw notFound('This lesson');
    return lesson;
  }

  find(id: string): Promise<Lesson | null> {
    return this.lessons.findOneBy({ id });
  }

  /** A new lesson with a page for each page of a document. */
  async createFromPdf(teacherId: string, title: string, { material, sizes }: ReadMaterial): Promise<Lesson> {
    const now = Date.now();
    const lesson = await this.lessons.save({
      id: randomUUID(),
      teacherId,
      title: title.slice(0, 200),
      coverSha256: null,
      createdAt: now,
      usedAt: now,
      deletedAt: null,
    });
    await this.insertPages(lesson, { material, sizes });
    return lesson;
  }

  /** Puts pages of a document after a page, or at the end. Returns the new pages' ids. */
  async insertPages(
    { id, teacherId }: Lesson,
    { material, sizes }: ReadMaterial,
    { after, chosen = sizes.map((_, i) => i) }: { after?: string | undefined; chosen?: number[] } = {},
  ): Promise<string[]> {
    await this.links.upsert({ lessonId: id, materialId: material.id }, ['lessonId', 'materialId']);
    const [low, high] = this.gap((await this.logs.open(id)).state, after);
    const orders = orderSequence(chosen.length, low, high);
    const pages = chosen.map((index, i): Page => ({
      id: randomUUID(),
      order: orders[i]!,
      title: '',
      ...sizes[index]!,
      surface: { kind: 'pdf', material: material.id, index },
      removed: false,
    }));
    await this.logs.append(id, teacherId, {
      id: randomUUID(),
      changes: pages.map((page) => ({ do: 'addPage', page })),
    });
    return pages.map((page) => page.id);
  }

  /** Puts a copy of a web page after a page. Its height is set by the first browser that lays it out. */
  insertWebPage(lesson: Lesson, material: Material, after?: string): Promise<string> {
    const size = { width: WEB_PAGE_WIDTH, height: WEB_PAGE_WIDTH };
    return this.insertPage(lesson, material, {
      surface: { kind: 'web', material: material.id },
      size,
      after,
    });
  }

  /** Puts a sound or video file after a page, as wide as a screen and as high as its picture makes it. */
  insertMedia(
    lesson: Lesson,
    material: Material,
    {
      form,
      size = FORMATS.wide,
      after,
    }: {
      form: MediaForm;
      size?: { width: number; height: number } | undefined;
      after?: string | undefined;
    },
  ): Promise<string> {
    const { width } = FORMATS.wide;
    return this.insertPage(lesson, material, {
      surface: { kind: 'media', material: material.id, form },
      size: { width, height: Math.max(1, Math.round((width * size.height) / size.width)) },
      after,
    });
  }

  private async insertPage(
    { id, teacherId }: Lesson,
    material: Material,
    {
      surface,
      size,
      after,
    }: { surface: Page['surface']; size: { width: number; height: number }; after?: string | undefined },
  ): Promise<string> {
    await this.links.upsert({ lessonId: id, materialId: material.id }, ['lessonId', 'materialId']);
    const [low, high] = this.gap((await this.logs.open(id)).state, after);
    const page: Page = {
      id: randomUUID(),
      order: orderBetween(low, high),
      title: material.name.slice(0, 200),
      ...size,
      surface,
      removed: false,
    };
    await this.logs.append(id, teacherId, { id: randomUUID(), changes: [{ do: 'addPage', page }] });
    return page.id;
  }

  /** Gives a web page's page a newer copy; what is on it stays. Throws Problem. */
  async replaceWebPage({ id, teacherId }: Lesson, material: Material, page: string): Promise<void> {
    const known = (await this.logs.open(id)).state.pages.get(page);
    if (known?.surface.kind !== 'web') throw notFound('This web page');
    await this.links.upsert({ lessonId: id, materialId: material.id }, ['lessonId', 'materialId']);
    const set = { surface: { kind: 'web', material: material.id } } as const;
    await this.logs.append(id, teacherId, {
      id: randomUUID(),
      changes: [{ do: 'patchPage', page, set }],
    });
  }

  /** The places between which something comes after a page; removed pages keep theirs. */
  private gap(state: LogState, after: string | undefined): [string | null, string | null] {
    const all = [...state.pages.values()].sort(byOrder);
    const at = all.findIndex((page) => page.id === after);
    return at < 0 ? [all.at(-1)?.order ?? null, null] : [all[at]!.order, all[at + 1]?.order ?? null];
  }

  async rename(lesson: Lesson, title: string): Promise<void> {
    await this.lessons.update({ id: lesson.id }, { title });
  }

  async markUsed(id: string): Promise<void> {
    await this.lessons.update({ id }, { usedAt: Date.now() });
  }

  /** Puts a lesson away; until it is purged it can be brought back. */
  async remove(lesson: Lesson): Promise<void> {
    await this.lessons.update({ id: lesson.id }, { deletedAt: Date.now() });
  }

  async restore(teacherId: string, id: string): Promise<void> {
    const { affected } = await this.lessons.update(
      { id, teacherId, deletedAt: Not(IsNull()) },
      { deletedAt: null },
    );
    if (!affected) throw notFound('This lesson');
  }

  private async makeCover(id: string): Promise<void> {
    if (this.covered.has(id)) return;
    this.covered.add(id);
    try {
      const { state } = await this.logs.open(id);
      const [first] = orderedPages(state.pages.values());
      if (first?.surface.kind !== 'pdf') return;
      const { sha256 } = await this.materials.findOneByOrFail({ id: first.surface.material });
      const png = await this.pdfs.cover(this.files.pathOf(sha256), COVER_WIDTH);
      await this.lessons.update({ id }, { coverSha256: await this.files.put(png) });
    } catch {
      // A lesson without a picture is shown with a plain one.
    }
  }
}
