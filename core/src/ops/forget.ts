import type { Mark } from '../marks/mark.js';
import type { Space } from '../marks/shared.js';
import type { Change } from './operation.js';

/** Whose operations they are whose author has been forgotten. */
export const FORGOTTEN = 'forgotten';

/** Whether a mark is a student's: made by them, or on their own copy of a page. */
export function isOfStudent({ author, space }: Pick<Mark, 'author' | 'space'>, student: string): boolean {
  const own: Space = `student:${student}`;
  return author === student || space === own;
}

/** The ids of a student's marks that changes put on pages. */
export function addedBy(changes: readonly Change[], student: string): string[] {
  return changes.flatMap((change) =>
    change.do === 'add' && isOfStudent(change.mark, student) ? [change.mark.id] : [],
  );
}

/** The changes without what they do to some marks. */
export function withoutMarks(changes: readonly Change[], ids: ReadonlySet<string>): Change[] {
  return changes.filter((change) => {
    if (change.do === 'add') return !ids.has(change.mark.id);
    return (change.do !== 'patch' && change.do !== 'remove') || !ids.has(change.mark);
  });
}
