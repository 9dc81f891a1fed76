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
  Put,
  Query,
  Req,
  Res,
  UseGuards,
} from '@nestjs/common';
import type { ShelfContent, ShelfThing } from '@doodla/core';
import type { Request, Response } from 'express';
import { LessonsService } from '../lessons/lessons.service.js';
import type { Teacher } from '../people/teacher.entity.js';
import { CurrentTeacher, TeacherGuard } from '../people/visitor.guard.js';
import { receivePng } from '../pictures/receivePng.js';
import { sendPicture } from '../pictures/sendPicture.js';
import { FileStore } from '../storage/fileStore.js';
import { ThingContentService } from './thingContent.service.js';
import { ChangeThingDto, KeepThingDto, ListThingsDto, TakeThingDto } from './things.dto.js';
import { ThingsService } from './things.service.js';

/** Marks and pages that teachers keep on their shelves, and share with the school. */
@Controller('api/shelf/things')
@UseGuards(TeacherGuard)
export class ThingsController {
  constructor(
    private readonly things: ThingsService,
    private readonly content: ThingContentService,
    private readonly lessons: LessonsService,
    private readonly files: FileStore,
  ) {}

  @Get()
  list(@CurrentTeacher() teacher: Teacher, @Query() question: ListThingsDto): Promise<ShelfThing[]> {
    return this.things.list(teacher.id, question);
  }

  @Post()
  keep(@CurrentTeacher() teacher: Teacher, @Body() request: KeepThingDto): Promise<ShelfThing> {
    return this.things.keep(teacher.id, request);
  }

  /** What a thing is, for a lesson or class in which it is used. */
  @Post(':id/uses')
  async use(
    @CurrentTeacher() teacher: Teacher,
    @Param('id', ParseUUIDPipe) id: string,
    @Body() { lesson, sitting }: TakeThingDto,
  ): Promise<ShelfContent> {
    const place = await this.lessons.place(teacher.id, lesson, sitting);
    return this.content.give(await this.things.use(teacher.id, id), teacher.id, place);
  }

  @Patch(':id')
  @HttpCode(204)
  change(
    @CurrentTeacher() teacher: Teacher,
    @Param('id', ParseUUIDPipe) id: string,
    @Body() change: ChangeThingDto,
  ): Promise<void> {
    return this.things.change(teacher.id, id, change);
  }

  /** What a thing looks like, a PNG. */
  @Put(':id/picture')
  @HttpCode(204)
  async setPreview(
    @CurrentTeacher() teacher: Teacher,
    @Param('id', ParseUUIDPipe) id: string,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    await this.things.own(teacher.id, id);
    await this.things.setPreview(id, await receivePng(request, response, this.files));
  }

  @Get(':id/picture')
  async preview(
    @CurrentTeacher() teacher: Teacher,
    @Param('id', ParseUUIDPipe) id: string,
    @Res() response: Response,
  ): Promise<void> {
    const sha256 = await this.things.previewOf(teacher.id, id);
    sendPicture(response, { path: await this.files.local(sha256), type: 'png' });
  }

  @Delete(':id')
  @HttpCode(204)
  remove(@CurrentTeacher() teacher: Teacher, @Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.things.remove(teacher.id, id);
  }

  @Post(':id/restored')
  @HttpCode(204)
  restore(@CurrentTeacher() teacher: Teacher, @Param('id', ParseUUIDPipe) id: string): Promise<void> {
    return this.things.restore(teacher.id, id);
  }
}
