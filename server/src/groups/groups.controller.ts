import { Body, Controller, Delete, Get, HttpCode, Param, Post, Put, UseGuards } from '@nestjs/common';
import type { Group } from '@doodla/core';
import type { Teacher } from '../people/teacher.entity.js';
import { CurrentTeacher, TeacherGuard } from '../people/visitor.guard.js';
import type { ClassGroup } from './group.entity.js';
import { GroupDto } from './groups.dto.js';
import { GroupsService } from './groups.service.js';

@Controller('api/groups')
@UseGuards(TeacherGuard)
export class GroupsController {
  constructor(private readonly groups: GroupsService) {}

  @Get()
  async all(@CurrentTeacher() teacher: Teacher): Promise<Group[]> {
    return (await this.groups.of(teacher.id)).map(told);
  }

  @Post()
  async add(@CurrentTeacher() teacher: Teacher, @Body() dto: GroupDto): Promise<Group> {
    return told(await this.groups.add(teacher.id, dto));
  }

  @Put(':id')
  async change(
    @CurrentTeacher() teacher: Teacher,
    @Param('id') id: string,
    @Body() dto: GroupDto,
  ): Promise<Group> {
    return told(await this.groups.change(teacher.id, id, dto));
  }

  @Delete(':id')
  @HttpCode(204)
  async remove(@CurrentTeacher() teacher: Teacher, @Param('id') id: string): Promise<void> {
    await this.groups.remove(teacher.id, id);
  }
}

function told({ id, title, names, code }: ClassGroup): Group {
  return { id, title, names, code };
}
