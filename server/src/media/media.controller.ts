import { Controller, Param, ParseUUIDPipe, Post, Query, Req, Res, UseGuards } from '@nestjs/common';
import type { PageReply } from '@doodla/core';
import type { Request, Response } from 'express';
import { randomUUID } from 'node:crypto';
import { open, rm } from 'node:fs/promises';
import { Problem } from '../http/problem.js';
import { LessonsService } from '../lessons/lessons.service.js';
import { receiveUpload } from '../http/upload.js';
import { MaterialsService } from '../materials/materials.service.js';
import type { Teacher } from '../people/teacher.entity.js';
import { CurrentTeacher, TeacherGuard } from '../people/visitor.guard.js';
import { RoomService } from '../schools/room.service.js';
import { FileStore } from '../storage/fileStore.js';
import { InsertMediaDto } from './media.dto.js';
import type { MediaType } from './mediaType.js';
import { mediaType } from './mediaType.js';

@Controller('api/lessons/:id/media')
@UseGuards(TeacherGuard)
export class MediaController {
  constructor(
    private readonly lessons: LessonsService,
    private readonly materials: MaterialsService,
    private readonly files: FileStore,
    private readonly room: RoomService,
  ) {}

  /** Takes a sound or video file as a page of its own. */
  @Post()
  async insert(
    @CurrentTeacher() teacher: Teacher,
    @Param('id', ParseUUIDPipe) id: string,
    @Query() { after, sitting, width, height }: InsertMediaDto,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<PageReply> {
    const place = await this.lessons.place(teacher.id, id, sitting);
    const upload = await receiveUpload(request, response, this.files, await this.room.forUpload(teacher.id));
    const { path, name, size: bytes } = upload;
    try {
      const type = await checked(path);
      const material = await this.materials.note({
        id: randomUUID(),
        teacherId: teacher.id,
        kind: 'media',
        name,
        sha256: await this.files.take(upload),
        bytes,
        pageCount: 1,
        notes: null,
        mime: type.mime,
        createdAt: Date.now(),
      });
      const size = width !== undefined && height !== undefined ? { width, height } : undefined;
      return { page: await this.lessons.insertMedia(place, material, { form: type.form, size, after }) };
    } finally {
      await rm(path, { force: true });
    }
  }
}

/** What a file is. Throws Problem where it is neither sound nor video that browsers play. */
async function checked(path: string): Promise<MediaType> {
  const file = await open(path);
  try {
    const { buffer, bytesRead } = await file.read(Buffer.alloc(128), 0, 128, 0);
    const type = mediaType(buffer);
    if (bytesRead > 0 && type) return type;
  } finally {
    await file.close();
  }
  throw new Problem(
    415,
    'not-media',
    'This is no sound or video file that browsers play. Please save it as MP4, WebM, MP3, Ogg, WAV or FLAC and choose that one.',
  );
}
