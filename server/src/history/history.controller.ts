import { Body, Controller, Get, Param, Post, UseGuards } from '@nestjs/common';
import type { HistoryReply, UndoEntry } from '@doodla/core';
import { packLogged } from '@doodla/core';
import { Problem } from '../http/problem.js';
import { AccessService } from '../live/access.service.js';
import type { Visitor } from '../people/visitor.js';
import { CurrentVisitor, TeacherGuard } from '../people/visitor.guard.js';
import { PageOfLogDto, RestoreDto } from './history.dto.js';
import { HistoryService } from './history.service.js';

@Controller('api/logs/:kind/:id/pages/:page/history')
@UseGuards(TeacherGuard)
export class HistoryController {
  constructor(
    private readonly access: AccessService,
    private readonly history: HistoryService,
  ) {}

  /** What was done to a page, oldest first. */
  @Get()
  async get(
    @CurrentVisitor() visitor: Visitor,
    @Param() { page, ...log }: PageOfLogDto,
  ): Promise<HistoryReply> {
    await this.access.to(log, visitor);
    return { steps: (await this.history.of(log.id, page)).map(packLogged) };
  }

  /** Makes a page what it was after an operation. Answers with the step for undo. */
  @Post()
  async restore(
    @CurrentVisitor() visitor: Visitor,
    @Param() { page, ...log }: PageOfLogDto,
    @Body() what: RestoreDto,
  ): Promise<UndoEntry> {
    const { actor, situation } = await this.access.to(log, visitor);
    if ((await situation()).ended)
      throw new Problem(
        409,
        'ended-history',
        'This class has ended. Go on with it to bring back what was there.',
      );
    return this.history.restore(log.id, page, what, actor.id);
  }
}
