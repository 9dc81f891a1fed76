import { Body, Controller, HttpCode, Param, ParseUUIDPipe, Post, Res, UseGuards } from '@nestjs/common';
import type { Response } from 'express';
import { ArchiveMakingService } from '../archive/archiveMaking.service.js';
import { ArchiveReadingService } from '../archive/archiveReading.service.js';
import { closedOf } from '../http/closedOf.js';
import { LessonsService } from '../lessons/lessons.service.js';
import type { Teacher } from '../people/teacher.entity.js';
import { CurrentTeacher, TeacherGuard } from '../people/visitor.guard.js';
import { RoomService } from '../schools/room.service.js';
import { GiveDto } from './school.dto.js';
import { SchoolService } from './school.service.js';

/** Lessons that go from one teacher of the school to another. */
@Controller('api/lessons/:id/copies-for')
@UseGuards(TeacherGuard)
export class GivingController {
  constructor(
    private readonly lessons: LessonsService,
    private readonly school: SchoolService,
    private readonly room: RoomService,
    private readonly making: ArchiveMakingService,
    private readonly reading: ArchiveReadingService,
  ) {}

  /** Gives a colleague a copy of a lesson of their own, without its classes: those are of one's own students. */
  @Post()
  @HttpCode(204)
  async give(
    @CurrentTeacher() teacher: Teacher,
    @Param('id', ParseUUIDPipe) id: string,
    @Body() { to }: GiveDto,
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    const lesson = await this.lessons.own(teacher.id, id);
    const colleague = await this.school.teacher(teacher, to);
    await this.room.check(colleague.id);
    const options = { signal: closedOf(response), onProgress: () => undefined };
    const { path, remove } = await this.making.make(lesson, teacher, { ...options, withClasses: false });
    try {
      await this.reading.read(path, colleague, options);
    } finally {
      await remove();
    }
  }
}
