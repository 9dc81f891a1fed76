import { Controller, Param, ParseUUIDPipe, Post, Query, Req, Res, UseGuards } from '@nestjs/common';
import type { WebPageReply } from '@doodla/core';
import type { Request, Response } from 'express';
import { rm } from 'node:fs/promises';
import { notFound, Problem } from '../http/problem.js';
import { receiveUpload } from '../http/upload.js';
import { LivePageDto } from '../lessons/lessons.dto.js';
import type { PagePlace } from '../lessons/lessons.service.js';
import { LessonsService } from '../lessons/lessons.service.js';
import { AccessService } from '../live/access.service.js';
import type { Visitor } from '../people/visitor.js';
import { CurrentVisitor, VisitorGuard } from '../people/visitor.guard.js';
import { RoomService } from '../schools/room.service.js';
import { SittingsService } from '../sittings/sittings.service.js';
import { FileStore } from '../storage/fileStore.js';
import { whileOpen } from './webPages.controller.js';
import { WebPagesService } from './webPages.service.js';

/** Pages that a companion brings into its class, as they are in the browser that shows them. */
@Controller('api')
@UseGuards(VisitorGuard)
export class LivePagesController {
  constructor(
    private readonly access: AccessService,
    private readonly sittings: SittingsService,
    private readonly lessons: LessonsService,
    private readonly webPages: WebPagesService,
    private readonly files: FileStore,
    private readonly room: RoomService,
  ) {}

  /** Takes a page as HTML and puts a copy after a page of the class, laid out as wide as it was. */
  @Post('sittings/:id/webpages')
  async intoClass(
    @CurrentVisitor() visitor: Visitor,
    @Param('id', ParseUUIDPipe) id: string,
    @Query() where: LivePageDto,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<WebPageReply> {
    await this.access.teaches(id, visitor);
    const { lessonId, teacherId } = await this.teacherOf(id);
    const place = await this.lessons.place(teacherId, lessonId, id);
    return this.take(place, where, request, response);
  }

  /** Takes a page as HTML and puts a copy after a page of the lesson. */
  @Post('lessons/:id/webpages/live')
  async intoLesson(
    @CurrentVisitor() visitor: Visitor,
    @Param('id', ParseUUIDPipe) id: string,
    @Query() where: LivePageDto,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<WebPageReply> {
    const { actor, writes } = await this.access.to({ kind: 'lesson', id }, visitor);
    if (!writes) throw new Problem(403, 'not-allowed', 'Only the teacher can do that.');
    return this.take(await this.lessons.place(actor.id, id), where, request, response);
  }

  private async take(
    place: PagePlace,
    { after, width }: LivePageDto,
    request: Request,
    response: Response,
  ): Promise<WebPageReply> {
    const limits = await this.room.forUpload(place.by);
    const { path, name } = await receiveUpload(request, response, this.files, limits);
    try {
      const { material, lost } = await this.webPages.fromFile(place.by, path, name, whileOpen(response));
      return { page: await this.lessons.insertWebPage(place, material, after, width), lost };
    } finally {
      await rm(path, { force: true });
    }
  }

  private async teacherOf(sittingId: string): Promise<{ lessonId: string; teacherId: string }> {
    const sitting = await this.sittings.find(sittingId);
    const lesson = sitting && (await this.lessons.find(sitting.lessonId));
    if (!lesson) throw notFound('This class');
    return { lessonId: lesson.id, teacherId: lesson.teacherId };
  }
}
