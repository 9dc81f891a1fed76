import { Controller, Get, Param, UseGuards } from '@nestjs/common';
import type { ClassWords } from '@doodla/core';
import { notFound } from '../http/problem.js';
import { LessonsService } from '../lessons/lessons.service.js';
import type { Teacher } from '../people/teacher.entity.js';
import { CurrentTeacher, TeacherGuard } from '../people/visitor.guard.js';
import { PollsService } from '../polls/polls.service.js';
import { SittingsService } from '../sittings/sittings.service.js';
import { ChatService } from './chat.service.js';
import { NotesService } from './notes.service.js';

/** What is left of a class beside its marks. */
@Controller('api')
@UseGuards(TeacherGuard)
export class ClassWordsController {
  constructor(
    private readonly lessons: LessonsService,
    private readonly sittings: SittingsService,
    private readonly chats: ChatService,
    private readonly noting: NotesService,
    private readonly polls: PollsService,
  ) {}

  /** All that a class has said, noted down and answered. */
  @Get('sittings/:id/words')
  async words(@CurrentTeacher() teacher: Teacher, @Param('id') id: string): Promise<ClassWords> {
    const sitting = await this.sittings.find(id);
    if (!sitting) throw notFound('This class');
    await this.lessons.own(teacher.id, sitting.lessonId);
    const said = await this.chats.all(id);
    const { doc, isEmpty } = await this.noting.of(id);
    return {
      chat: said.flatMap(({ id: message, author, name, words, at, removedAt }) =>
        removedAt === null ? [{ id: message, author, name, words, at, removed: false }] : [],
      ),
      notes: isEmpty ? null : doc,
      polls: await this.polls.all(id),
    };
  }
}
