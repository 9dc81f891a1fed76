import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { Mark, ShelfContent, ShelfKeepRequest } from '@doodla/core';
import { byOrder } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import { In, Repository } from 'typeorm';
import { notFound } from '../http/problem.js';
import { LessonsService } from '../lessons/lessons.service.js';
import type { PagePlace } from '../lessons/lessons.service.js';
import { picturesOf, withMaterials } from '../lessons/picturesShown.js';
import { TeamsService } from '../lessons/teams.service.js';
import { LogsService } from '../live/logs.service.js';
import { MaterialsService } from '../materials/materials.service.js';
import { StoredPicture } from '../pictures/picture.entity.js';
import { SittingsService } from '../sittings/sittings.service.js';
import { ThingPicture } from './shelfThing.entity.js';

/** What a thing is made of; its pictures have ids of their own. */
export interface Gathered {
  content: ShelfContent;
  pictures: Omit<ThingPicture, 'thingId'>[];
  materials: string[];
  /** What the lesson is called that it comes from. */
  lessonTitle: string;
}

/** What is on things: taken from pages, and given to pages. */
@Injectable()
export class ThingContentService {
  constructor(
    private readonly lessons: LessonsService,
    private readonly sittings: SittingsService,
    private readonly logs: LogsService,
    @InjectRepository(StoredPicture) private readonly pictures: Repository<StoredPicture>,
    @InjectRepository(ThingPicture) private readonly kept: Repository<ThingPicture>,
    private readonly materials: MaterialsService,
    private readonly teams: TeamsService,
  ) {}

  /** What a teacher wants to keep, as it is on their pages now. Throws Problem where they have no such thing. */
  async gather(teacherId: string, request: ShelfKeepRequest): Promise<Gathered> {
    const { lesson, sitting, marks } = request;
    const from =
      sitting === undefined ? this.lessons.editable(teacherId, lesson) : this.lessons.own(teacherId, lesson);
    const { title } = await from;
    if (sitting !== undefined && (await this.sittings.find(sitting))?.lessonId !== lesson)
      throw notFound('This class');
    const wanted = marks && new Set(marks);
    const parts = await Promise.all(
      request.pages.map(async (id) => {
        const page = (await this.logs.open(sitting ?? lesson)).pages.get(id);
        if (!page || page.removed) throw notFound('This page');
        const there = await this.marksOn(id, request);
        const own = there.filter((mark) => (wanted ? wanted.has(mark.id) : mark.space === 'class'));
        return { page: wanted ? null : page, marks: own.map((mark) => belongingTo(mark, teacherId)) };
      }),
    );
    if (wanted && parts.every((part) => part.marks.length === 0)) throw notFound('What you chose');
    for (const material of materialsOf(parts))
      if (!(await this.teams.sees(teacherId, material))) throw notFound('This document');
    return { ...(await this.withOwnPictures(lesson, parts)), lessonTitle: title };
  }

  /** The same for a place where a teacher uses it: its pictures and documents are that lesson's then. */
  async give(
    { content, id }: { content: ShelfContent; id: string },
    teacherId: string,
    place: PagePlace,
  ): Promise<ShelfContent> {
    const pictures = await this.kept.findBy({ thingId: id });
    const renamed = new Map<string, string>(pictures.map((picture) => [picture.id, randomUUID()]));
    const at = { lessonId: place.lesson.id, sittingId: place.sitting?.id ?? null };
    const rows = pictures.map(({ id: old, type, sha256, bytes }): StoredPicture => {
      return { ...at, id: renamed.get(old)!, author: teacherId, type, sha256, bytes, createdAt: Date.now() };
    });
    if (rows.length > 0) await this.pictures.insert(rows);
    for (const material of materialsOf(content.parts)) {
      const own = await this.materials.ownNote(material, teacherId);
      await this.lessons.link(place, own);
      renamed.set(material, own);
    }
    return { parts: content.parts.map((part) => renamedPart(part, renamed)) };
  }

  /** All marks of a page, those of the lesson below those of the class; both lowest first. */
  private async marksOn(page: string, { lesson, sitting }: ShelfKeepRequest): Promise<Mark[]> {
    const marks: Mark[] = [];
    for (const log of sitting === undefined ? [lesson] : [lesson, sitting])
      marks.push(...[...(await (await this.logs.open(log)).marksOn(page)).values()].sort(byOrder));
    return marks;
  }

  private async withOwnPictures(
    lessonId: string,
    parts: ShelfContent['parts'],
  ): Promise<Omit<Gathered, 'lessonTitle'>> {
    const shown = parts.flatMap(({ page, marks }) => [...picturesOf(page ?? undefined, marks)]);
    const pictures = await this.pictures.findBy({ id: In(shown), lessonId });
    const renamed = new Map(pictures.map(({ id }) => [id, randomUUID()]));
    return {
      content: { parts: parts.map((part) => renamedPart(part, renamed)) },
      pictures: pictures.map(({ id, type, sha256, bytes }) => ({
        id: renamed.get(id)!,
        type,
        sha256,
        bytes,
      })),
      materials: materialsOf(parts),
    };
  }
}

/** A mark as one of its keeper's, which nobody else is named in. */
function belongingTo(mark: Mark, author: string): Mark {
  const own: Mark = { ...mark, author, space: 'class' };
  delete own.credit;
  return own;
}

function materialsOf(parts: ShelfContent['parts']): string[] {
  const ids = parts.flatMap(({ page }) =>
    page && 'material' in page.surface && page.surface.kind !== 'picture' ? [page.surface.material] : [],
  );
  return [...new Set(ids)];
}

function renamedPart(
  { page, marks }: ShelfContent['parts'][number],
  renamed: ReadonlyMap<string, string>,
): ShelfContent['parts'][number] {
  const nameOf = (id: string) => renamed.get(id) ?? id;
  return {
    page: page && { ...page, surface: withMaterials(page.surface, renamed) },
    marks: marks.map((mark) =>
      mark.kind === 'picture' ? { ...mark, material: nameOf(mark.material) } : mark,
    ),
  };
}
