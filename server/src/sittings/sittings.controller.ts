import {
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  Param,
  ParseUUIDPipe,
  Patch,
  Post,
  Req,
  UseGuards,
} from '@nestjs/common';
import type {
  Asking,
  CodeReply,
  CountReply,
  DoorReply,
  MarksReply,
  OpenSitting,
  PagesReply,
  PastSitting,
  Removal,
  Seat,
  SittingDetail,
  SittingSummary,
  KeepingReply,
} from '@doodla/core';
import { seatLook } from '@doodla/core';
import type { Request } from 'express';
import { publicAddress } from '../http/publicAddress.js';
import { AttemptLimit } from '../http/attemptLimit.js';
import { Limiters } from '../processes/limiters.js';
import { notFound } from '../http/problem.js';
import { LessonsService } from '../lessons/lessons.service.js';
import { ClassesService } from '../live/classes.service.js';
import { ClassTokens } from '../people/classTokens.js';
import type { Teacher } from '../people/teacher.entity.js';
import { CurrentTeacher, TeacherGuard } from '../people/visitor.guard.js';
import { Settings } from '../settings/settings.js';
import { RenameDto } from '../lessons/lessons.dto.js';
import { SeatsService } from './seats.service.js';
import type { Sitting } from './sitting.entity.js';
import {
  DoorDto,
  EndDto,
  JoinDto,
  LookDto,
  KeepPagesDto,
  NodDto,
  StartDto,
  ToLessonDto,
  KeepingDto,
} from './sittings.dto.js';
import { DoorService } from './door.service.js';
import { RemovalsService } from './removals.service.js';
import { SittingsService } from './sittings.service.js';
import type { Student } from './student.entity.js';
import { ToLessonService } from './toLesson.service.js';

@Controller('api')
export class SittingsController {
  private readonly wrongCodes: AttemptLimit;

  constructor(
    private readonly sittings: SittingsService,
    private readonly seats: SeatsService,
    private readonly doors: DoorService,
    private readonly removals: RemovalsService,
    private readonly lessons: LessonsService,
    private readonly classes: ClassesService,
    private readonly tokens: ClassTokens,
    private readonly settings: Settings,
    private readonly toLesson: ToLessonService,
    limiters: Limiters,
  ) {
    this.wrongCodes = new AttemptLimit(limiters, 'class-codes');
  }

  @Post('lessons/:id/sittings')
  @UseGuards(TeacherGuard)
  async start(
    @CurrentTeacher() teacher: Teacher,
    @Param('id') lessonId: string,
    @Body() { title, page }: StartDto,
  ): Promise<SittingSummary> {
    const lesson = await this.lessons.own(teacher.id, lessonId);
    await this.lessons.markUsed(lesson.id);
    return this.sittings.summary(await this.sittings.open(lesson.id, title, { page }), teacher);
  }

  /** The last classes that have ended, one of each group. */
  @Get('sittings/past')
  @UseGuards(TeacherGuard)
  past(@CurrentTeacher() teacher: Teacher): Promise<PastSitting[]> {
    return this.sittings.pastOf(teacher.id);
  }

  @Get('sittings/:id')
  @UseGuards(TeacherGuard)
  async get(
    @CurrentTeacher() teacher: Teacher,
    @Param('id') id: string,
    @Req() request: Request,
  ): Promise<SittingDetail> {
    const { sitting, lesson } = await this.own(teacher, id);
    const address = publicAddress(request, this.settings);
    return {
      ...this.sittings.summary(sitting, teacher),
      lessonId: lesson.id,
      lessonTitle: lesson.title,
      joinUrl: `${address}/join/${sitting.code}`,
    };
  }

  @Post('sittings/:id/end')
  @HttpCode(204)
  @UseGuards(TeacherGuard)
  async end(
    @CurrentTeacher() teacher: Teacher,
    @Param('id') id: string,
    @Body() { title, drop }: EndDto,
  ): Promise<void> {
    const { sitting } = await this.own(teacher, id);
    await this.classes.end(sitting.id, { title, drop });
  }

  /** Classes that have not ended, to be gone on with after a closed tab or a power cut. */
  @Get('sittings')
  @UseGuards(TeacherGuard)
  open(@CurrentTeacher() teacher: Teacher): Promise<OpenSitting[]> {
    return this.sittings.openOf(teacher.id);
  }

  /** Keeps a class for longer than the school does. */
  @Post('sittings/:id/keeping')
  @UseGuards(TeacherGuard)
  async keepLonger(
    @CurrentTeacher() teacher: Teacher,
    @Param('id') id: string,
    @Body() { days }: KeepingDto,
  ): Promise<KeepingReply> {
    const { sitting } = await this.own(teacher, id);
    return { goneAt: await this.sittings.keepLonger(sitting, teacher, days) };
  }

  /** Lets an ended class go on. */
  @Post('sittings/:id/reopen')
  @HttpCode(204)
  @UseGuards(TeacherGuard)
  async reopen(@CurrentTeacher() teacher: Teacher, @Param('id') id: string): Promise<void> {
    const { sitting } = await this.own(teacher, id);
    await this.classes.reopen(sitting.id);
  }

  /** Drops an ended class; for a day it can be brought back. */
  @Delete('sittings/:id')
  @HttpCode(204)
  @UseGuards(TeacherGuard)
  async drop(@CurrentTeacher() teacher: Teacher, @Param('id') id: string): Promise<void> {
    const { sitting } = await this.own(teacher, id);
    await this.sittings.drop(sitting.id);
    await this.classes.announce(sitting.id);
  }

  @Post('sittings/:id/restore')
  @HttpCode(204)
  @UseGuards(TeacherGuard)
  async restore(@CurrentTeacher() teacher: Teacher, @Param('id') id: string): Promise<void> {
    const { sitting } = await this.own(teacher, id);
    await this.sittings.restore(sitting.id);
  }

  @Patch('sittings/:id')
  @HttpCode(204)
  @UseGuards(TeacherGuard)
  async rename(
    @CurrentTeacher() teacher: Teacher,
    @Param('id') id: string,
    @Body() { title }: RenameDto,
  ): Promise<void> {
    const { sitting } = await this.own(teacher, id);
    await this.sittings.rename(sitting.id, title);
    await this.classes.announce(sitting.id);
  }

  /** Copies marks of a class into its lesson. */
  @Post('sittings/:id/prepared')
  @UseGuards(TeacherGuard)
  async keepInLesson(
    @CurrentTeacher() teacher: Teacher,
    @Param('id') id: string,
    @Body() which: ToLessonDto,
  ): Promise<MarksReply> {
    const { sitting } = await this.own(teacher, id);
    return { marks: await this.toLesson.copy(sitting, teacher.id, which) };
  }

  /** Puts pages that were made in a class into its lesson too. */
  @Post('sittings/:id/kept-pages')
  @UseGuards(TeacherGuard)
  async keepPages(
    @CurrentTeacher() teacher: Teacher,
    @Param('id') id: string,
    @Body() { pages }: KeepPagesDto,
  ): Promise<PagesReply> {
    const { sitting, lesson } = await this.own(teacher, id);
    return { pages: await this.toLesson.keepPages(sitting, lesson, pages) };
  }

  /** Says who is let in. */
  @Post('sittings/:id/door')
  @UseGuards(TeacherGuard)
  async door(
    @CurrentTeacher() teacher: Teacher,
    @Param('id') id: string,
    @Body() dto: DoorDto,
  ): Promise<DoorReply> {
    const { sitting } = await this.own(teacher, id);
    return { code: await this.doors.set(sitting, teacher.id, dto) };
  }

  /** What was taken off the pages of a class, newest first. */
  @Get('sittings/:id/removals')
  @UseGuards(TeacherGuard)
  async removed(@CurrentTeacher() teacher: Teacher, @Param('id') id: string): Promise<Removal[]> {
    const { sitting } = await this.own(teacher, id);
    return this.removals.of(sitting.id);
  }

  /** Puts back what was taken off. */
  @Post('sittings/:id/removals/:operation/back')
  @HttpCode(204)
  @UseGuards(TeacherGuard)
  async putBack(
    @CurrentTeacher() teacher: Teacher,
    @Param('id') id: string,
    @Param('operation') operation: string,
  ): Promise<void> {
    const { sitting } = await this.own(teacher, id);
    await this.removals.putBack(sitting.id, operation, teacher.id);
  }

  /** Takes a student out; what they wrote stays. */
  @Delete('sittings/:id/students/:student')
  @HttpCode(204)
  @UseGuards(TeacherGuard)
  async takeOut(
    @CurrentTeacher() teacher: Teacher,
    @Param('id') id: string,
    @Param('student') student: string,
  ): Promise<void> {
    const { sitting } = await this.own(teacher, id);
    await this.sittings.removeStudent(sitting.id, student);
    await this.classes.announce(sitting.id);
  }

  /** Takes out everybody who is not here. */
  @Post('sittings/:id/clear')
  @UseGuards(TeacherGuard)
  async clear(@CurrentTeacher() teacher: Teacher, @Param('id') id: string): Promise<CountReply> {
    const { sitting } = await this.own(teacher, id);
    const count = await this.sittings.clearAway(sitting.id, this.classes.hereIn(sitting.id));
    await this.classes.announce(sitting.id);
    return { count };
  }

  /** What a code leads to, and what one needs there. */
  @Post('join/look')
  @HttpCode(200)
  async look(@Body() { code, password }: LookDto, @Req() request: Request): Promise<CodeReply> {
    return this.wrongCodes.guard(request, async () =>
      this.doors.look(await this.sittings.byCode(code), password),
    );
  }

  @Post('join')
  async join(@Body() dto: JoinDto, @Req() request: Request): Promise<Seat | Asking> {
    const claim = dto.token === undefined ? undefined : this.tokens.read(dto.token);
    const device = claim && 'student' in claim ? claim.student : undefined;
    const { sitting, seat } = await this.wrongCodes.guard(request, async () => {
      const found = await this.sittings.byCode(dto.code);
      return { sitting: found, seat: await this.doors.join(found, { ...dto, device }) };
    });
    if ('ask' in seat) return seat;
    await this.classes.announce(sitting.id);
    return this.place(sitting, seat);
  }

  /** What became of a wish to be let in: the place, or nothing yet. */
  @Get('join/asks/:ask')
  async asked(@Param('ask', ParseUUIDPipe) ask: string): Promise<Seat | Asking> {
    const student = this.seats.granted(ask);
    const sitting = student && (await this.sittings.find(student.sittingId));
    return sitting ? this.place(sitting, student) : this.seats.waits(ask);
  }

  /** The teacher lets somebody in who asked, or does not. */
  @Post('sittings/:id/asks/:ask')
  @HttpCode(204)
  @UseGuards(TeacherGuard)
  async nod(
    @CurrentTeacher() teacher: Teacher,
    @Param('id') id: string,
    @Param('ask', ParseUUIDPipe) ask: string,
    @Body() { grant }: NodDto,
  ): Promise<void> {
    const { sitting } = await this.own(teacher, id);
    await this.seats.answer(sitting.id, ask, grant);
  }

  private place(sitting: Sitting, { id, name, colour, seat }: Student): Seat {
    return {
      sitting: sitting.id,
      lesson: sitting.lessonId,
      student: { id, name, colour, dash: seatLook(seat).dash },
      token: this.tokens.sign({ student: id, sitting: sitting.id }),
    };
  }

  private async own(teacher: Teacher, id: string) {
    const sitting = await this.sittings.find(id);
    if (!sitting) throw notFound('This class');
    return { sitting, lesson: await this.lessons.own(teacher.id, sitting.lessonId) };
  }
}
