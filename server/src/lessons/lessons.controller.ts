import {
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  Param,
  ParseUUIDPipe,
  Patch,
  Post,
  Query,
  Req,
  Res,
  UseGuards,
} from '@nestjs/common';
import type { LessonDetail, LessonSummary, NewLessonReply, PagesReply, Remarked } from '@doodla/core';
import type { Request, Response } from 'express';
import { ClassesService } from '../live/classes.service.js';
import { DocumentIntake } from '../materials/documentIntake.js';
import { MaterialsService } from '../materials/materials.service.js';
import type { Teacher } from '../people/teacher.entity.js';
import { CurrentTeacher, TeacherGuard } from '../people/visitor.guard.js';
import { SittingsService } from '../sittings/sittings.service.js';
import type { Lesson } from './lesson.entity.js';
import { BlankLessonDto, InsertDocumentDto, LessonDto, RenameDto } from './lessons.dto.js';
import { FoldersService } from './folders.service.js';
import { LessonsService } from './lessons.service.js';
import { PageCopiesService } from './pageCopies.service.js';
import { TeamsService } from './teams.service.js';

@Controller('api/lessons')
@UseGuards(TeacherGuard)
export class LessonsController {
  constructor(
    private readonly lessons: LessonsService,
    private readonly materials: MaterialsService,
    private readonly sittings: SittingsService,
    private readonly classes: ClassesService,
    private readonly intake: DocumentIntake,
    private readonly folders: FoldersService,
    private readonly copies: PageCopiesService,
    private readonly teams: TeamsService,
  ) {}

  @Get()
  async list(@CurrentTeacher() teacher: Teacher): Promise<LessonSummary[]> {
    const lessons = await this.lessons.list(teacher.id);
    const owners = await this.teams.ownersOf(lessons, teacher.id);
    return lessons.map((lesson) => summary(lesson, owners.get(lesson.id)));
  }

  /**
   * Takes a document as a new lesson. Answers in lines of JSON while it works: `{"waiting"}` for
   * documents before it, `{"done","total"}` for pages read, then `{"lesson","material"}`, or `{"error"}`
   * with a sentence. A closed connection cancels.
   */
  @Post()
  async create(
    @CurrentTeacher() teacher: Teacher,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    await this.intake.receive(teacher, request, response, '', async ({ remarks, ...read }) => {
      const { material } = read;
      const lesson = await this.lessons.createFromPdf(teacher.id, titleFrom(material.name), read);
      return { lesson: summary(lesson), material: material.id, remarks } satisfies NewLessonReply;
    });
  }

  /** Makes a lesson of one blank page. */
  @Post('blank')
  async createBlank(
    @CurrentTeacher() teacher: Teacher,
    @Body() { sheet }: BlankLessonDto,
  ): Promise<LessonSummary> {
    return summary(await this.lessons.createBlank(teacher.id, sheet));
  }

  /**
   * Puts a document's pages into a lesson, or into one class on it: after a page, or at the end; all of them, or those of
   * `pages`, such as `1-3,7`. Answers like `create`, at last with `{"pages"}`.
   */
  @Post(':id/documents')
  async insert(
    @CurrentTeacher() teacher: Teacher,
    @Param('id') id: string,
    @Query() { after, pages = '', sitting }: InsertDocumentDto,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    const place = await this.lessons.place(teacher.id, id, sitting);
    await this.intake.receive(teacher, request, response, pages, async ({ remarks, ...read }) => {
      const made = await this.lessons.insertPages(place, read, after);
      return { pages: made, remarks } satisfies PagesReply & Remarked;
    });
  }

  /** Puts pages of a document that was looked at before (`POST /api/documents`) into a lesson, as `insert` does. */
  @Post(':id/documents/:material')
  async insertChosen(
    @CurrentTeacher() teacher: Teacher,
    @Param('id') id: string,
    @Param('material', ParseUUIDPipe) materialId: string,
    @Query() { after, pages = '', sitting }: InsertDocumentDto,
  ): Promise<PagesReply> {
    const place = await this.lessons.place(teacher.id, id, sitting);
    const material = await this.materials.own(teacher.id, materialId);
    const read = await this.materials.read(material, pages, { owner: teacher.id });
    return { pages: await this.lessons.insertPages(place, read, after) };
  }

  /** What is deleted and can be had back. */
  @Get('trash')
  async trash(@CurrentTeacher() teacher: Teacher): Promise<LessonSummary[]> {
    return (await this.lessons.trash(teacher.id)).map((lesson) => summary(lesson));
  }

  @Get(':id')
  async get(@CurrentTeacher() teacher: Teacher, @Param('id') id: string): Promise<LessonDetail> {
    const lesson = await this.lessons.editable(teacher.id, id);
    const owner = (await this.teams.ownersOf([lesson], teacher.id)).get(id);
    // Classes are of their own teacher's students.
    const sittings = owner === undefined ? await this.sittings.ofLesson(id) : [];
    return {
      ...summary(lesson, owner),
      sittings: sittings.map((each) => this.sittings.summary(each, teacher)),
    };
  }

  @Patch(':id')
  @HttpCode(204)
  async change(
    @CurrentTeacher() teacher: Teacher,
    @Param('id') id: string,
    @Body() what: LessonDto,
  ): Promise<void> {
    const lesson = await this.lessons.own(teacher.id, id);
    if (what.folder) await this.folders.own(teacher.id, what.folder);
    await this.lessons.change(lesson, what);
  }

  /** Makes a copy of a lesson with its prepared marks, under another title. */
  @Post(':id/copies')
  async copy(
    @CurrentTeacher() teacher: Teacher,
    @Param('id') id: string,
    @Body() { title }: RenameDto,
  ): Promise<LessonSummary> {
    return summary(await this.copies.copyLesson(teacher.id, id, title));
  }

  @Delete(':id')
  @HttpCode(204)
  async remove(@CurrentTeacher() teacher: Teacher, @Param('id') id: string): Promise<void> {
    const ended = await this.lessons.remove(await this.lessons.own(teacher.id, id));
    for (const sitting of ended) await this.classes.announce(sitting);
  }

  @Post(':id/restore')
  @HttpCode(204)
  async restore(@CurrentTeacher() teacher: Teacher, @Param('id') id: string): Promise<void> {
    await this.lessons.restore(teacher.id, id);
  }
}

/** What is told of a lesson; how somebody else has arranged theirs is their own. */
export function summary(lesson: Lesson, owner: string | null = null): LessonSummary {
  const { id, title, usedAt, createdAt, folderId, favourite, tags, archivedAt, deletedAt } = lesson;
  const common = { id, title, usedAt, createdAt, deletedAt, owner };
  if (owner !== null) return { ...common, folder: null, favourite: false, tags: [], archived: false };
  return { ...common, folder: folderId, favourite, tags: tags ?? [], archived: archivedAt !== null };
}

/** A file's name as a title: without its ending, dashes for spaces. */
function titleFrom(fileName: string): string {
  const bare = fileName
    .replace(/\.(pdf|ppt[xm]?|pps[xm]?|odp|doc[xm]?|odt|rtf|md|txt)$/i, '')
    .replace(/[_-]+/g, ' ')
    .trim();
  return bare === '' ? 'Untitled lesson' : bare;
}
