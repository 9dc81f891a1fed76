import { Controller, Post, Req, Res, UseGuards } from '@nestjs/common';
import type { LookedAtReply } from '@doodla/core';
import type { Request, Response } from 'express';
import type { Teacher } from '../people/teacher.entity.js';
import { CurrentTeacher, TeacherGuard } from '../people/visitor.guard.js';
import { DocumentIntake } from './documentIntake.js';

@Controller('api/documents')
@UseGuards(TeacherGuard)
export class DocumentsController {
  constructor(private readonly intake: DocumentIntake) {}

  /**
   * Takes a document in to look at before pages of it are chosen. Answers in lines (`DocumentIntake`), at last with
   * `{"material","count","remarks"}`. What no lesson uses goes after a day.
   */
  @Post()
  async look(
    @CurrentTeacher() teacher: Teacher,
    @Req() request: Request,
    @Res() response: Response,
  ): Promise<void> {
    await this.intake.receive(teacher, request, response, null, ({ material, remarks }) =>
      Promise.resolve({
        material: material.id,
        count: material.pageCount,
        remarks,
      } satisfies LookedAtReply),
    );
  }
}
