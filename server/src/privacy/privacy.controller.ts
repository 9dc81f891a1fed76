import { Body, Controller, Get, Post, Query, UseGuards } from '@nestjs/common';
import type { ForgetReply, StudentData, StudentTrace } from '@doodla/core';
import type { Teacher } from '../people/teacher.entity.js';
import { CurrentTeacher, TeacherGuard } from '../people/visitor.guard.js';
import { StudentNameDto } from './privacy.dto.js';
import { PrivacyService } from './privacy.service.js';

/** What is kept about one student, for their teacher alone. */
@Controller('api/students')
@UseGuards(TeacherGuard)
export class PrivacyController {
  constructor(private readonly privacy: PrivacyService) {}

  @Get('traces')
  traces(@CurrentTeacher() teacher: Teacher, @Query() { name }: StudentNameDto): Promise<StudentTrace[]> {
    return this.privacy.traces(teacher.id, name.trim());
  }

  @Get('data')
  data(@CurrentTeacher() teacher: Teacher, @Query() { name }: StudentNameDto): Promise<StudentData[]> {
    return this.privacy.data(teacher.id, name.trim());
  }

  @Post('forget')
  async forget(@CurrentTeacher() teacher: Teacher, @Body() { name }: StudentNameDto): Promise<ForgetReply> {
    return { classes: await this.privacy.forget(teacher.id, name.trim()) };
  }
}
