import { Controller, Get, HttpCode, Param, ParseUUIDPipe, Put, Req, Res, UseGuards } from '@nestjs/common';
import type { Request, Response } from 'express';
import { notFound } from '../http/problem.js';
import type { Teacher } from '../people/teacher.entity.js';
import { CurrentTeacher, TeacherGuard } from '../people/visitor.guard.js';
import { receivePng } from '../pictures/receivePng.js';
import { sendPicture } from '../pictures/sendPicture.js';
import type { Sitting } from '../sittings/sitting.entity.js';
import { SittingsService } from '../sittings/sittings.service.js';
import { FileStore } from '../storage/fileStore.js';
import { LessonsService } from './lessons.service.js';

/** What lessons and classes look like on the start page: drawn by the browsers that work on them. */
@Controller('api')
@UseGuards(TeacherGuard)
export class CoversController {
  constructor(
    private readonly lessons: LessonsService,
    private readonly sittings: SittingsService,
    private readonly files: FileStore,
  ) {}

  @Get('lessons/:id/cover')
  async ofLesson(
    @CurrentTeacher() teacher: Teacher,
    @Param('id', ParseUUIDPipe) id: string,
    @Res() response: Response,
  ): Promise<void> {
    await this.send(response, await this.lessons.coverOf(await this.lessons.editable(teacher.id, id)));
  }

  @Put('lessons/:id/cover')
  @HttpCode(204)
  async setOfLesson(
    @CurrentTeacher() teacher: Teacher,
    @Param('id', ParseUUIDPipe) id: string,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    const lesson = await this.lessons.editable(teacher.id, id);
    await this.lessons.setCover(lesson, await receivePng(request, response, this.files));
  }

  /** Of a class that shows none, its lesson's. */
  @Get('sittings/:id/cover')
  async ofSitting(
    @CurrentTeacher() teacher: Teacher,
    @Param('id', ParseUUIDPipe) id: string,
    @Res() response: Response,
  ): Promise<void> {
    const sitting = await this.sitting(id);
    const lesson = await this.lessons.own(teacher.id, sitting.lessonId);
    await this.send(response, sitting.coverSha256 ?? (await this.lessons.coverOf(lesson)));
  }

  @Put('sittings/:id/cover')
  @HttpCode(204)
  async setOfSitting(
    @CurrentTeacher() teacher: Teacher,
    @Param('id', ParseUUIDPipe) id: string,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    await this.lessons.own(teacher.id, (await this.sitting(id)).lessonId);
    await this.sittings.setCover(id, await receivePng(request, response, this.files));
  }

  private async sitting(id: string): Promise<Sitting> {
    const sitting = await this.sittings.find(id);
    if (!sitting) throw notFound('This class');
    return sitting;
  }

  private async send(response: Response, sha256: string | undefined): Promise<void> {
    if (sha256 === undefined) throw notFound('This picture');
    sendPicture(response, { path: await this.files.local(sha256), type: 'png', changes: true });
  }
}
