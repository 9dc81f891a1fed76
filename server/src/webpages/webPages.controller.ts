import { Body, Controller, Param, ParseUUIDPipe, Post, Query, Req, Res, UseGuards } from '@nestjs/common';
import type { WebPageReply } from '@doodla/core';
import type { Request, Response } from 'express';
import { rm } from 'node:fs/promises';
import { InsertDocumentDto, WebPageDto } from '../lessons/lessons.dto.js';
import { LessonsService } from '../lessons/lessons.service.js';
import { receiveUpload } from '../http/upload.js';
import type { Teacher } from '../people/teacher.entity.js';
import { CurrentTeacher, TeacherGuard } from '../people/visitor.guard.js';
import { RoomService } from '../schools/room.service.js';
import { FileStore } from '../storage/fileStore.js';
import { WebPagesService } from './webPages.service.js';

@Controller('api/lessons/:id/webpages')
@UseGuards(TeacherGuard)
export class WebPagesController {
  constructor(
    private readonly lessons: LessonsService,
    private readonly webPages: WebPagesService,
    private readonly files: FileStore,
    private readonly room: RoomService,
  ) {}

  /** Fetches a page and puts a copy after a page of the lesson. A closed connection cancels. */
  @Post()
  async fromAddress(
    @CurrentTeacher() teacher: Teacher,
    @Param('id', ParseUUIDPipe) id: string,
    @Body() { address, after, replace, sitting }: WebPageDto,
    @Res({ passthrough: true }) response: Response,
  ): Promise<WebPageReply> {
    const place = await this.lessons.place(teacher.id, id, sitting);
    await this.room.check(teacher.id);
    const { material, lost } = await this.webPages.fromAddress(teacher.id, address, whileOpen(response));
    if (replace === undefined)
      return { page: await this.lessons.insertWebPage(place, material, after), lost };
    await this.lessons.replaceWebPage(place, material, replace);
    return { page: replace, lost };
  }

  /** Takes an HTML file or a web archive. */
  @Post('file')
  async fromFile(
    @CurrentTeacher() teacher: Teacher,
    @Param('id', ParseUUIDPipe) id: string,
    @Query() { after, sitting }: InsertDocumentDto,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<WebPageReply> {
    const place = await this.lessons.place(teacher.id, id, sitting);
    const limits = await this.room.forUpload(teacher.id);
    const { path, name } = await receiveUpload(request, response, this.files, limits);
    try {
      const { material, lost } = await this.webPages.fromFile(teacher.id, path, name, whileOpen(response));
      return { page: await this.lessons.insertWebPage(place, material, after), lost };
    } finally {
      await rm(path, { force: true });
    }
  }
}

/** Aborts when whoever asked no longer waits. */
export function whileOpen(response: Response): AbortSignal {
  const abort = new AbortController();
  response.on('close', () => abort.abort());
  return abort.signal;
}
