import { Controller, Get, Query, UseGuards } from '@nestjs/common';
import type { SearchReply } from '@doodla/core';
import { IsString, Length } from 'class-validator';
import type { Teacher } from '../people/teacher.entity.js';
import { CurrentTeacher, TeacherGuard } from '../people/visitor.guard.js';
import { SearchService } from './search.service.js';

export class SearchDto {
  @IsString() @Length(0, 200) q: string;
}

@Controller('api/search')
@UseGuards(TeacherGuard)
export class SearchController {
  constructor(private readonly search: SearchService) {}

  @Get()
  find(@CurrentTeacher() teacher: Teacher, @Query() { q }: SearchDto): Promise<SearchReply> {
    return this.search.find(teacher.id, q);
  }
}
