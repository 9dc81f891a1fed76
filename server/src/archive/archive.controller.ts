import { Controller, Get, Param, ParseUUIDPipe, Post, Req, Res, UseGuards } from '@nestjs/common';
import type { ArchiveReply, LessonSummary } from '@doodla/core';
import type { Request, Response } from 'express';
import { rm } from 'node:fs/promises';
import { closedOf } from '../http/closedOf.js';
import { answerInLines } from '../http/progressLines.js';
import { receiveUpload } from '../http/upload.js';
import { summary } from '../lessons/lessons.controller.js';
import { LessonsService } from '../lessons/lessons.service.js';
import type { Teacher } from '../people/teacher.entity.js';
import { CurrentTeacher, TeacherGuard } from '../people/visitor.guard.js';
import { SchoolsService } from '../schools/schools.service.js';
import { RoomService } from '../schools/room.service.js';
import { FileStore } from '../storage/fileStore.js';
import { ArchiveMakingService } from './archiveMaking.service.js';
import { ArchiveReadingService } from './archiveReading.service.js';
import { MadeArchives } from './madeArchives.js';

/** An archive holds all documents and recordings of a lesson, each of which may be as large as any. */
const TIMES_ONE_FILE = 20;

/** Lessons as files that hold everything, and back. */
@Controller('api')
@UseGuards(TeacherGuard)
export class ArchiveController {
  constructor(
    private readonly lessons: LessonsService,
    private readonly making: ArchiveMakingService,
    private readonly reading: ArchiveReadingService,
    private readonly files: FileStore,
    private readonly schools: SchoolsService,
    private readonly room: RoomService,
    private readonly made: MadeArchives,
  ) {}

  /**
   * Makes the archive of a lesson with all its classes. Answers in lines of JSON while it works: `{"done","total"}` for
   * pages, at last `{"archive"}`, by which it is fetched, or `{"error"}` with a sentence. A closed connection cancels.
   */
  @Post('lessons/:id/archives')
  async make(
    @CurrentTeacher() teacher: Teacher,
    @Param('id', ParseUUIDPipe) id: string,
    @Res() response: Response,
  ): Promise<void> {
    const lesson = await this.lessons.own(teacher.id, id);
    const apology = 'The archive could not be made. Please try again.';
    await answerInLines(response, apology, async ({ line, signal }) => {
      const archive = await this.made.keep(teacher.id, id, () =>
        this.making.make(lesson, teacher, { signal, onProgress: line }),
      );
      return { archive } satisfies ArchiveReply;
    });
  }

  @Get('lessons/:lesson/archives/:id')
  async fetch(
    @CurrentTeacher() teacher: Teacher,
    @Param('id', ParseUUIDPipe) id: string,
    @Res() response: Response,
  ): Promise<void> {
    const { path, remove } = this.made.take(teacher.id, id);
    await new Promise<void>((resolve) => {
      const headers = { 'Content-Type': 'application/zip', 'Cache-Control': 'no-store' };
      // What breaks off while it is sent, the browser says.
      response.sendFile(path, { headers, dotfiles: 'allow' }, () => resolve());
    });
    await remove();
  }

  /** Takes an archive as a new lesson. */
  @Post('archives')
  async read(
    @CurrentTeacher() teacher: Teacher,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<LessonSummary> {
    const signal = closedOf(response);
    const most = this.schools.limitsOf(teacher.schoolId).maxUploadMb * TIMES_ONE_FILE;
    const limits = await this.room.forUpload(teacher.id, most);
    const { path } = await receiveUpload(request, response, this.files, limits);
    try {
      return summary(await this.reading.read(path, teacher, { signal, onProgress: () => undefined }));
    } finally {
      await rm(path, { force: true });
    }
  }
}
