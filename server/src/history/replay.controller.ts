import { Controller, Get, Param, Res, UseGuards } from '@nestjs/common';
import type { Response } from 'express';
import { answerInLines } from '../http/progressLines.js';
import type { Visitor } from '../people/visitor.js';
import { CurrentVisitor, VisitorGuard } from '../people/visitor.guard.js';
import { LogDto } from './history.dto.js';
import { ReplayAccess } from './replayAccess.js';
import { ReplayService } from './replay.service.js';

const APOLOGY = 'What was done here could not be read. Please try again.';

@Controller('api/logs/:kind/:id/replay')
@UseGuards(VisitorGuard)
export class ReplayController {
  constructor(
    private readonly access: ReplayAccess,
    private readonly replay: ReplayService,
  ) {}

  /** All that was done, in lines (`answerInLines`): a `ReplayHead`, then operations, at last `{"end"}`. */
  @Get()
  async get(
    @CurrentVisitor() visitor: Visitor,
    @Param() log: LogDto,
    @Res() response: Response,
  ): Promise<void> {
    const actor = await this.access.to(log, visitor);
    await answerInLines(response, APOLOGY, async (progress) => {
      await this.replay.tell(log, actor, progress);
      return { end: true };
    });
  }
}
