import { Injectable } from '@nestjs/common';
import type {
  Actor,
  Belonging,
  HistoryReply,
  LoggedOperation,
  Operation,
  ReplayHead,
  LogRef,
} from '@doodla/core';
import { packLogged, visibleTo, withoutMarks } from '@doodla/core';
import { LogsService } from '../live/logs.service.js';
import { slowLane } from '../live/slowLane.js';
import type { Progress } from '../http/progressLines.js';
import { TurnsService } from '../sittings/turns.service.js';
import type { AppendedOperation } from '../storage/storedLog.js';
import { StopsService } from './stops.service.js';

/** Operations that are told between two turns of others. */
const TOLD_AT_ONCE = 200;

/** What was done in a log, for playing it again. */
@Injectable()
export class ReplayService {
  constructor(
    private readonly logs: LogsService,
    private readonly turns: TurnsService,
    private readonly stops: StopsService,
  ) {}

  /** Tells all operations of a log that somebody may see, oldest first, until nobody waits for them. */
  async tell(log: LogRef, actor: Actor, { line, signal }: Progress): Promise<void> {
    const { id: logId } = log;
    const count = (await this.logs.open(logId)).seq;
    const head: ReplayHead = {
      count,
      turns: await this.turns.of(logId),
      stops: await this.stops.of(log),
    };
    line(head);
    const taken = actor.role === 'student' ? await this.takenAway(logId, count) : new Set<string>();
    const seen = seenBy(actor, taken);
    for await (const some of this.stretches(logId, count)) {
      if (signal.aborted) return;
      const told: HistoryReply = { steps: some.map((one) => packLogged(seen(one))) };
      line(told);
    }
  }

  /** Marks that are gone because somebody else took them away: what a teacher removed is not shown to a class again. */
  private async takenAway(logId: string, count: number): Promise<Set<string>> {
    const authors = new Map<string, string>();
    const taken = new Set<string>();
    for await (const some of this.stretches(logId, count))
      for (const { logged } of some)
        for (const change of logged.operation.changes) {
          if (change.do === 'add') {
            authors.set(change.mark.id, change.mark.author);
            taken.delete(change.mark.id);
          } else if (change.do === 'remove' && authors.get(change.mark) !== logged.author)
            taken.add(change.mark);
        }
    return taken;
  }

  private async *stretches(logId: string, count: number): AsyncGenerator<AppendedOperation[]> {
    for (let after = 0; after < count; after += TOLD_AT_ONCE) {
      yield await this.logs.stretch(logId, { after, count: TOLD_AT_ONCE });
      await slowLane.turn();
    }
  }
}

/** What somebody may see of operations that come in order. Marks that are gone by now are known from when they came. */
function seenBy(actor: Actor, taken: ReadonlySet<string>): (appended: AppendedOperation) => LoggedOperation {
  const known = new Map<string, Belonging>();
  return ({ logged, inverse }) => {
    for (const change of logged.operation.changes) {
      if (change.do !== 'add') continue;
      const { id, page, space, author } = change.mark;
      known.set(id, { page, space, author });
    }
    const seen = visibleTo(actor, logged, inverse, (mark) => known.get(mark));
    return taken.size === 0 ? seen : { ...seen, operation: without(seen.operation, taken) };
  };
}

function without(operation: Operation, marks: ReadonlySet<string>): Operation {
  return { ...operation, changes: withoutMarks(operation.changes, marks) };
}
