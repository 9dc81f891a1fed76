import { Body, Controller, Get, HttpCode, Param, Post, Req, UseGuards } from '@nestjs/common';
import type { Request } from 'express';
import { RateLimiterMemory } from 'rate-limiter-flexible';
import { Problem, notFound } from '../http/problem.js';
import { LessonsService } from '../lessons/lessons.service.js';
import { ClassesService } from '../live/classes.service.js';
import { StudentTokens } from '../people/studentTokens.js';
import type { Teacher } from '../people/teacher.entity.js';
import { CurrentTeacher, TeacherGuard } from '../people/visitor.guard.js';
import { Settings } from '../settings/settings.js';
import { RenameDto } from '../lessons/lessons.dto.js';
import { JoinDto } from './sittings.dto.js';
import { SittingsService } from './sittings.service.js';

@Controller('api')
export class SittingsController {
  /** Wrong codes from one address in ten minutes; a whole class may sit behind one. */
  private readonly wrongCodes = new RateLimiterMemory({ points: 100, duration: 600 });

  constructor(
    private readonly sittings: SittingsService,
    private readonly lessons: LessonsService,
    private readonly classes: ClassesService,
    private readonly tokens: StudentTokens,
    private readonly settings: Settings,
  ) {}

  @Post('lessons/:id/sittings')
  @UseGuards(TeacherGuard)
  async start(@CurrentTeacher() teacher: Teacher, @Param('id') lessonId: string, @Body() dto: RenameDto) {
    const lesson = await this.lessons.own(teacher.id, lessonId);
    await this.lessons.markUsed(lesson.id);
    return this.sittings.open(lesson.id, dto.title);
  }

  @Get('sittings/:id')
  @UseGuards(TeacherGuard)
  async get(@CurrentTeacher() teacher: Teacher, @Param('id') id: string, @Req() request: Request) {
    const { sitting, lesson } = await this.own(teacher, id);
    const address = this.settings.publicUrl ?? `${request.protocol}://${request.get('host')}`;
    return { ...sitting, lessonTitle: lesson.title, joinUrl: `${address}/join/${sitting.code}` };
  }

  @Post('sittings/:id/end')
  @HttpCode(204)
  @UseGuards(TeacherGuard)
  async end(@CurrentTeacher() teacher: Teacher, @Param('id') id: string): Promise<void> {
    const { sitting } = await this.own(teacher, id);
    await this.classes.end(sitting.id);
  }

  @Get('join/:code')
  async look(@Param('code') code: string, @Req() request: Request) {
    const { title } = await this.byCode(code, request);
    return { title };
  }

  @Post('join')
  async join(@Body() dto: JoinDto, @Req() request: Request) {
    const sitting = await this.byCode(dto.code, request);
    const student = await this.sittings.join(sitting, dto.name);
    await this.classes.announce(sitting.id);
    return {
      sitting: sitting.id,
      lesson: sitting.lessonId,
      student: { id: student.id, name: student.name, colour: student.colour },
      token: this.tokens.sign({ student: student.id, sitting: sitting.id }),
    };
  }

  private async own(teacher: Teacher, id: string) {
    const sitting = await this.sittings.find(id);
    if (!sitting) throw notFound('This class');
    return { sitting, lesson: await this.lessons.own(teacher.id, sitting.lessonId) };
  }

  private async byCode(code: string, request: Request) {
    const from = request.ip ?? '';
    const spent = await this.wrongCodes.get(from);
    if (spent && spent.remainingPoints <= 0) {
      throw new Problem(
        429,
        'too-many-attempts',
        'Too many wrong codes. Please wait ten minutes and try again.',
      );
    }
    try {
      return await this.sittings.byCode(code);
    } catch (error) {
      await this.wrongCodes.penalty(from);
      throw error;
    }
  }
}
