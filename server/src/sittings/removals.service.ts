import { Injectable } from '@nestjs/common';
import type { Change, Mark, Removal } from '@doodla/core';
import { kindOf } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import { notFound } from '../http/problem.js';
import { LogsService } from '../live/logs.service.js';

/** Operations that are looked at, and removals that are told, newest first. */
const LOOKED_AT = 4000;
const TOLD = 200;

/** What was taken off the pages of a class, by whom, and putting it back. */
@Injectable()
export class RemovalsService {
  constructor(private readonly logs: LogsService) {}

  /** Newest first. */
  async of(sittingId: string): Promise<Removal[]> {
    const log = await this.logs.open(sittingId);
    const removals: Removal[] = [];
    for (const { logged, inverse } of await this.logs.lastChanging(sittingId, LOOKED_AT)) {
      const removed = marksIn(inverse);
      if (removed.length === 0) continue;
      const there = (await log.viewOf(removed.map(({ id }) => id))).marks;
      const { operation, at, author: by } = logged;
      const missing = removed.filter(({ id }) => !there.has(id)).length;
      removals.push({ id: operation.id, at, by, page: removed[0]!.page, marks: counted(removed), missing });
      if (removals.length === TOLD) break;
    }
    return removals;
  }

  /** Puts back what an operation took away and is still missing, on pages that are there. Throws Problem. */
  async putBack(sittingId: string, operation: string, teacherId: string): Promise<void> {
    const found = await this.logs.find(sittingId, operation);
    if (!found) throw notFound('What was removed');
    const log = await this.logs.open(sittingId);
    const removed = marksIn(found.inverse).filter(({ page }) => log.pages.get(page)?.removed === false);
    const there = (await log.viewOf(removed.map(({ id }) => id))).marks;
    const changes: Change[] = removed.filter(({ id }) => !there.has(id)).map((mark) => ({ do: 'add', mark }));
    if (changes.length > 0) await this.logs.append(sittingId, teacherId, { id: randomUUID(), changes });
  }
}

function marksIn(inverse: readonly Change[]): Mark[] {
  return inverse.flatMap((change) => (change.do === 'add' ? [change.mark] : []));
}

function counted(marks: readonly Mark[]): Removal['marks'] {
  const counts = new Map<string, Removal['marks'][number]>();
  for (const mark of marks) {
    const { author } = mark;
    const what = kindOf(mark).name(mark);
    const key = `${author} ${what}`;
    counts.set(key, { author, what, count: (counts.get(key)?.count ?? 0) + 1 });
  }
  return [...counts.values()];
}
