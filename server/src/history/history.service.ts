import { Injectable } from '@nestjs/common';
import type { LoggedOperation, RestoreRequest, UndoEntry } from '@doodla/core';
import { isIn, PageHistory, restoringChanges } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import { notFound, Problem } from '../http/problem.js';
import { LogsService } from '../live/logs.service.js';
import { slowLane } from '../live/slowLane.js';

/** Operations that are read between two turns of others. */
const READ_AT_ONCE = 200;

/** Earlier states of a page, and bringing one back. */
@Injectable()
export class HistoryService {
  constructor(private readonly logs: LogsService) {}

  /** All operations that concern a page, oldest first. */
  async of(logId: string, page: string): Promise<LoggedOperation[]> {
    const last = (await this.logs.open(logId)).seq;
    const found: LoggedOperation[] = [];
    for (let seq = 0; seq < last; seq += READ_AT_ONCE) {
      for (const { logged } of await this.logs.concerning(logId, page, { after: seq, count: READ_AT_ONCE }))
        found.push(logged);
      await slowLane.turn();
    }
    return found;
  }

  /**
   * Makes a page what it was after an operation, as far as the marks of a space go: a step of a teacher's, which can be
   * undone. Throws Problem where the page is not there, or is so already.
   */
  async restore(
    logId: string,
    pageId: string,
    { space, seq }: RestoreRequest,
    teacherId: string,
  ): Promise<UndoEntry> {
    if ((await this.logs.open(logId)).pages.get(pageId)?.removed !== false) throw notFound('This page');
    const history = new PageHistory(pageId, isIn(space), await this.of(logId, pageId));
    const then = history.after(history.countAt(seq));
    const changes = restoringChanges(history.after(history.steps.length), then);
    if (changes.length === 0)
      throw new Problem(409, 'as-it-was', 'The page is as it was then: nothing has to be brought back.');
    const id = randomUUID();
    await this.logs.append(logId, teacherId, { id, changes });
    return { id, pages: [pageId], ofPages: changes.some((change) => change.do === 'patchPage') };
  }
}
