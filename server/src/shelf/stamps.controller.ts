import {
  Controller,
  Delete,
  Get,
  HttpCode,
  Param,
  ParseUUIDPipe,
  Post,
  Req,
  Res,
  UseGuards,
} from '@nestjs/common';
import type { StoredReply } from '@doodla/core';
import { InjectRepository } from '@nestjs/typeorm';
import type { Request, Response } from 'express';
import { randomUUID } from 'node:crypto';
import { rm } from 'node:fs/promises';
import { Repository } from 'typeorm';
import { Problem, notFound } from '../http/problem.js';
import { receiveUpload } from '../http/upload.js';
import type { Teacher } from '../people/teacher.entity.js';
import { CurrentTeacher, TeacherGuard } from '../people/visitor.guard.js';
import { checkedType } from '../pictures/checkedType.js';
import { MAX_PICTURE_MB } from '../pictures/pictures.controller.js';
import { sendPicture } from '../pictures/sendPicture.js';
import { RoomService } from '../schools/room.service.js';
import { FileStore } from '../storage/fileStore.js';
import { ShelfPicture } from './shelfPicture.entity.js';

const MAX_PICTURES = 60;

/** A teacher's own pictures for stamping. */
@Controller('api/shelf/pictures')
@UseGuards(TeacherGuard)
export class StampsController {
  constructor(
    @InjectRepository(ShelfPicture) private readonly pictures: Repository<ShelfPicture>,
    private readonly files: FileStore,
    private readonly room: RoomService,
  ) {}

  @Get()
  async list(@CurrentTeacher() teacher: Teacher): Promise<StoredReply[]> {
    const own = await this.pictures.find({ where: { teacherId: teacher.id }, order: { createdAt: 'ASC' } });
    return own.map(({ id }) => ({ id }));
  }

  @Post()
  async add(
    @CurrentTeacher() teacher: Teacher,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<StoredReply> {
    if ((await this.pictures.countBy({ teacherId: teacher.id })) >= MAX_PICTURES)
      throw new Problem(409, 'stamps-full', 'There is no more room for stamps. Please take one away first.');
    const limits = await this.room.forUpload(teacher.id, MAX_PICTURE_MB);
    const upload = await receiveUpload(request, response, this.files, limits);
    const { path } = upload;
    try {
      const type = await checkedType(path);
      const picture = { id: randomUUID(), teacherId: teacher.id, type, createdAt: Date.now() };
      await this.pictures.insert({ ...picture, sha256: await this.files.take(upload) });
      return { id: picture.id };
    } finally {
      await rm(path, { force: true });
    }
  }

  @Get(':id/file')
  async file(
    @CurrentTeacher() teacher: Teacher,
    @Param('id', ParseUUIDPipe) id: string,
    @Res() response: Response,
  ): Promise<void> {
    const picture = await this.pictures.findOneBy({ id, teacherId: teacher.id });
    if (!picture) throw notFound('This stamp');
    sendPicture(response, { path: await this.files.local(picture.sha256), type: picture.type });
  }

  @Delete(':id')
  @HttpCode(204)
  async remove(@CurrentTeacher() teacher: Teacher, @Param('id', ParseUUIDPipe) id: string): Promise<void> {
    const { affected } = await this.pictures.delete({ id, teacherId: teacher.id });
    if (!affected) throw notFound('This stamp');
  }
}
