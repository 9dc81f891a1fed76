import type { Mark, Rules } from '@doodla/core';
import { RULES_AT_FIRST } from '@doodla/core';
import { Store } from '@doodla/core/client';

/** Whose marks somebody wants to see: everybody's, all but students', or those of one person. */
export type ShownOf = 'everybody' | 'no-students' | { author: string };

/** Whose marks are shown here: those that the teacher has not hidden, and that whoever looks wants to see. */
export class ShownMarks {
  readonly of = new Store<ShownOf>('everybody');
  /** What students may do; it says whose marks are hidden. */
  readonly rules = new Store<Rules>(RULES_AT_FIRST);

  constructor(private readonly isStudent: (author: string) => boolean) {}

  isShown({ author }: Pick<Mark, 'author'>, me: string | undefined): boolean {
    if (author !== me && this.rules.get().hidden.includes(author)) return false;
    const of = this.of.get();
    if (of === 'everybody') return true;
    return of === 'no-students' ? !this.isStudent(author) : of.author === author;
  }

  /** Takes in what the class says. Returns whether other marks are shown by it. */
  take(rules: Rules): boolean {
    const before = this.rules.get();
    if (JSON.stringify(before) === JSON.stringify(rules)) return false;
    this.rules.set(rules);
    return before.hidden.join() !== rules.hidden.join();
  }
}
