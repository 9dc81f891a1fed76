import { Body, Controller, Param, ParseUUIDPipe, Post, UseGuards } from '@nestjs/common';
import type { PageReply } from '@doodla/core';
import type { Teacher } from '../people/teacher.entity.js';
import { CurrentTeacher, TeacherGuard } from '../people/visitor.guard.js';
import { CopyPageDto } from './lessons.dto.js';
import { PageCopiesService } from './pageCopies.service.js';

@Controller('api/lessons/:lesson/pages/:page/copies')
@UseGuards(TeacherGuard)
export class PageCopiesController {
  constructor(private readonly copies: PageCopiesService) {}

  /** Copies a page to the end of another lesson; with a sitting, also what that class wrote on it. */
  @Post()
  async copy(
    @CurrentTeacher() teacher: Teacher,
    @Param('lesson', ParseUUIDPipe) from: string,
    @Param('page') page: string,
    @Body() { to, sitting }: CopyPageDto,
  ): Promise<PageReply> {
    return { page: await this.copies.copy(teacher.id, { lesson: from, page, sitting }, to) };
  }
}
