import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put, UseGuards } from '@nestjs/common';
import type { Folder } from '@doodla/core';
import type { Teacher } from '../people/teacher.entity.js';
import { CurrentTeacher, TeacherGuard } from '../people/visitor.guard.js';
import { FoldersService } from './folders.service.js';
import { FolderDto } from './lessons.dto.js';

@Controller('api/folders')
@UseGuards(TeacherGuard)
export class FoldersController {
  constructor(private readonly folders: FoldersService) {}

  @Get()
  list(@CurrentTeacher() teacher: Teacher): Promise<Folder[]> {
    return this.folders.list(teacher.id);
  }

  @Post()
  create(@CurrentTeacher() teacher: Teacher, @Body() folder: FolderDto): Promise<Folder> {
    return this.folders.create(teacher.id, folder);
  }

  @Put(':id')
  @HttpCode(204)
  change(
    @CurrentTeacher() teacher: Teacher,
    @Param('id') id: string,
    @Body() folder: FolderDto,
  ): Promise<void> {
    return this.folders.change(teacher.id, id, folder);
  }

  @Delete(':id')
  @HttpCode(204)
  remove(@CurrentTeacher() teacher: Teacher, @Param('id') id: string): Promise<void> {
    return this.folders.remove(teacher.id, id);
  }
}
