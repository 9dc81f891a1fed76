import { Controller, Param, ParseUUIDPipe, Post, Query, UseGuards } from '@nestjs/common';
import type { AnnotationsReply } from '@doodla/core';
import { InsertDocumentDto } from '../lessons/lessons.dto.js';
import { LessonsService } from '../lessons/lessons.service.js';
import { MaterialsService } from '../materials/materials.service.js';
import type { Teacher } from '../people/teacher.entity.js';
import { CurrentTeacher, TeacherGuard } from '../people/visitor.guard.js';
import { AnnotationsService } from './annotations.service.js';

@Controller('api/lessons')
@UseGuards(TeacherGuard)
export class AnnotationsController {
  constructor(
    private readonly lessons: LessonsService,
    private readonly materials: MaterialsService,
    private readonly annotations: AnnotationsService,
  ) {}

  /** Makes what others have written on a document marks on its pages, in a lesson or one class on it. */
  @Post(':id/documents/:material/annotations')
  async annotationsToMarks(
    @CurrentTeacher() teacher: Teacher,
    @Param('id') id: string,
    @Param('material', ParseUUIDPipe) materialId: string,
    @Query() { sitting }: InsertDocumentDto,
  ): Promise<AnnotationsReply> {
    const place = await this.lessons.place(teacher.id, id, sitting);
    const material = await this.materials.own(teacher.id, materialId);
    return this.annotations.toMarks(place, teacher.id, material);
  }
}
