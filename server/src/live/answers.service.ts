import { Injectable } from '@nestjs/common';
import type { Actor, Change, LogView, Mark, Operation, RefusalCode } from '@doodla/core';
import { isId, Refusal } from '@doodla/core';
import { answerRefusal, endsTurn, isAnswering } from '@doodla/core/answers';
import { LogsService } from './logs.service.js';

/** Pages on which somebody answers in one go; a hand is on one or two. */
const MOST_PAGES = 4;

/** Judges an operation, given the state before it. */
export interface AnswerJudge {
  judge(operation: Operation, actor: Actor, view: LogView): RefusalCode | undefined;
  /** Whether a turn is over with what was judged. */
  endsTurn(): boolean;
}

/** Judges answers by the rules of the pages that they are on. */
@Injectable()
export class AnswersService {
  constructor(private readonly logs: LogsService) {}

  /**
   * Who judges changes of a log, whose prepared marks are those of a lesson; undefined where none is an answer. `turn` is
   * whose turn it is, where students have to wait for it. Throws Refusal.
   */
  async judgeOf(
    logId: string,
    { lesson, turn }: { lesson: string | undefined; turn: string | undefined },
    changes: readonly Change[],
  ): Promise<AnswerJudge | undefined> {
    const answers = changes.filter(isAnswering);
    if (answers.length === 0) return undefined;
    const pages = new Set(
      answers.flatMap((change) => (change.do === 'add' && change.mark.standIn ? change.mark.page : [])),
    );
    if (pages.size > MOST_PAGES) throw new Refusal('too-large');
    const known: ReadonlyMap<string, Mark>[] = [];
    for (const page of pages)
      if (isId(page))
        for (const log of [logId, lesson])
          if (log !== undefined) known.push(await (await this.logs.open(log)).marksOn(page));
    let isOver = false;
    return {
      judge(operation, actor, view) {
        if (actor.role === 'student' && turn !== undefined && turn !== actor.id && isForAll(answers))
          return 'not-your-turn';
        const find = (id: string) => view.marks.get(id) ?? known.find((marks) => marks.has(id))?.get(id);
        isOver = actor.id === turn && endsTurn(operation.changes, find);
        return answerRefusal(operation, actor, find);
      },
      endsTurn: () => isOver,
    };
  }
}

/** Whether something is answered where all see it; on copies of their own nobody waits. */
const isForAll = (answers: readonly Change[]) =>
  answers.some((change) => change.do === 'add' && change.mark.space === 'class');
