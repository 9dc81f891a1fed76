import type { AnsweredPage } from '../../src/answers/index.js';
import { answerRefusal } from '../../src/answers/index.js';
import type { Actor, Change, Mark, RefusalCode, Space } from '../../src/index.js';
import { applyChanges, FREE, isStanding, refusalOf, standInId, stateOf } from '../../src/index.js';
import { aPage } from './marks.js';

/** A page of prepared marks, and what a class makes of it, judged as a server judges it. */
export class TaughtPage {
  private count = 0;
  /** The time by all clocks. */
  clock = 1e12;
  readonly state = stateOf({ pages: [aPage()], marks: [] });

  constructor(
    readonly prepared: readonly Mark[],
    private readonly chance: () => number = Math.random,
  ) {}

  find = (id: string): Mark | undefined => this.state.marks.get(id) ?? this.original(id);

  original = (id: string): Mark | undefined => this.prepared.find((mark) => mark.id === id);

  /** The page as a student sees it who works in a space. */
  as(student: string, space: Space = 'class'): AnsweredPage {
    return {
      space,
      author: student,
      original: this.original,
      originals: this.prepared,
      now: (id) => this.seenBy(space, id),
      order: () => `a${++this.count}`.padEnd(6, '5'),
      newId: () => `made${++this.count}`,
      time: () => this.clock,
      chance: () => this.chance(),
    };
  }

  seenBy(space: Space, id: string): Mark | undefined {
    const { marks } = this.state;
    return marks.get(standInId(id, space)) ?? marks.get(standInId(id, 'class')) ?? this.original(id);
  }

  /** All that is to be seen in a space. */
  standing(space: Space): Mark[] {
    const written = [...this.state.marks.values()].filter(
      (mark) => mark.space === space || mark.space === 'class',
    );
    return [...this.prepared, ...written].filter((mark) => isStanding(mark, space, this.state.marks));
  }

  /** Puts marks as a student, if they are allowed. */
  put(student: string, marks: readonly Mark[]): RefusalCode | undefined {
    return this.does(
      { id: student, role: 'student', tables: [] },
      marks.map((mark) => ({ do: 'add', mark })),
    );
  }

  does(actor: Actor, changes: Change[]): RefusalCode | undefined {
    const operation = { id: `o${++this.count}`, changes };
    const situation = { ...FREE, freedom: 'ink' as const };
    const reason =
      refusalOf(operation, actor, this.state, situation) ?? answerRefusal(operation, actor, this.find);
    if (!reason) applyChanges(this.state, changes);
    return reason;
  }
}
