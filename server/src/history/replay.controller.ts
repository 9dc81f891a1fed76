import { Controller, Get, Param, Res, UseGuards } from '@nestjs/common';
import type { LogRef } from '@doodla/core';
import type { Response } from 'express';
import { notFound, Problem } from '../http/problem.js';
import { answerInLines } from '../http/progressLines.js';
import { AccessService } from '../live/access.service.js';
import type { Visitor } from '../people/visitor.js';
import { CurrentVisitor, VisitorGuard } from '../people/visitor.guard.js';
import { rulesOf, SittingsService } from '../sittings/sittings.service.js';
import { LogDto } from './history.dto.js';
import { ReplayService } from './replay.service.js';

const APOLOGY = 'What was done here could not be read. Please try again.';

@Controller('api/logs/:kind/:id/replay')
@UseGuards(VisitorGuard)
export class ReplayController {
  constructor(
    private readonly access: AccessService,
    private readonly sittings: SittingsService,
    private readonly replay: ReplayService,
  ) {}

  /** All that was done, in lines (`answerInLines`): a `ReplayHead`, then operations, at last `{"end"}`. */
  @Get()
  async get(
    @CurrentVisitor() visitor: Visitor,
    @Param() log: LogDto,
    @Res() response: Response,
  ): Promise<void> {
    const { actor } = await this.access.to(log, visitor);
    if (actor.role === 'student') await this.refuseUnlessLet(log);
    await answerInLines(response, APOLOGY, async (progress) => {
      await this.replay.tell(log, actor, progress);
      return { end: true };
    });
  }

  private async refuseUnlessLet({ kind, id }: LogRef): Promise<void> {
    const sitting = kind === 'sitting' ? await this.sittings.find(id) : undefined;
    if (!sitting) throw notFound('This class');
    if (!rulesOf(sitting).replay)
      throw new Problem(
        403,
        'no-replay',
        'Your teacher does not let the class play pages again. Please ask your teacher.',
      );
  }
}
