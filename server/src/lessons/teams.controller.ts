import {
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  Param,
  ParseUUIDPipe,
  Put,
  UseGuards,
} from '@nestjs/common';
import type { Colleague } from '@doodla/core';
import type { Teacher } from '../people/teacher.entity.js';
import { CurrentTeacher, TeacherGuard } from '../people/visitor.guard.js';
import { TeamDto } from './lessons.dto.js';
import { LessonsService } from './lessons.service.js';
import { TeamsService } from './teams.service.js';

/** Who works on a lesson together. */
@Controller('api/lessons/:id/team')
@UseGuards(TeacherGuard)
export class TeamsController {
  constructor(
    private readonly lessons: LessonsService,
    private readonly teams: TeamsService,
  ) {}

  @Get()
  async list(
    @CurrentTeacher() teacher: Teacher,
    @Param('id', ParseUUIDPipe) id: string,
  ): Promise<Colleague[]> {
    await this.lessons.own(teacher.id, id);
    return this.teams.of(id);
  }

  @Put()
  @HttpCode(204)
  async set(
    @CurrentTeacher() teacher: Teacher,
    @Param('id', ParseUUIDPipe) id: string,
    @Body() { teachers }: TeamDto,
  ): Promise<void> {
    await this.teams.set(await this.lessons.own(teacher.id, id), teachers);
  }

  /** Leaves a lesson of somebody else's. */
  @Delete('me')
  @HttpCode(204)
  async leave(@CurrentTeacher() teacher: Teacher, @Param('id', ParseUUIDPipe) id: string): Promise<void> {
    await this.teams.leave(id, teacher.id);
  }
}
