import { Injectable } from '@nestjs/common';
import type { Actor, LogRef } from '@doodla/core';
import { notFound, Problem } from '../http/problem.js';
import { AccessService } from '../live/access.service.js';
import type { Visitor } from '../people/visitor.js';
import { rulesOf, SittingsService } from '../sittings/sittings.service.js';

/** Decides who may play lessons and classes again. */
@Injectable()
export class ReplayAccess {
  constructor(
    private readonly access: AccessService,
    private readonly sittings: SittingsService,
  ) {}

  /** Who it is. Throws Problem unless they may: teachers, and students of a class whose teacher lets them. */
  async to(log: LogRef, visitor: Visitor): Promise<Actor> {
    const { actor } = await this.access.to(log, visitor);
    if (actor.role === 'student') await this.refuseUnlessLet(log);
    return actor;
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
