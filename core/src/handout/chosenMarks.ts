import { shownByAnswers, solved } from '../answers/solved.js';
import type { Mark } from '../marks/mark.js';
import { isExported } from '../marks/select.js';
import type { Space } from '../marks/shared.js';
import { isStanding } from '../marks/standIn.js';
import { byOrder } from '../pages/page.js';

/** Whose marks are handed out: what all have in common, what is not of students, or one student's. */
export type Whose = 'everybody' | 'teacher' | { student: string };

export interface MarkChoice {
  whose: Whose;
  /** Whether the lesson's own marks come along. */
  prepared: boolean;
  /** Whether patches stay over what they hide. */
  covered: boolean;
  /** What pages that answer are like: as they were answered, with what is right, or empty to be filled in on paper. */
  answers?: 'given' | 'key' | 'none';
}

/**
 * The marks of a page that are handed out, lowest first. A student's are those that they made where all work, and all of
 * their own copy, what the teacher wrote there too.
 */
export function chosenMarks(
  { prepared, written }: { prepared: readonly Mark[]; written: readonly Mark[] },
  choice: MarkChoice,
  isStudent: (author: string) => boolean,
): Mark[] {
  const isWanted = (mark: Mark) => isExported(mark) || (choice.covered && mark.kind === 'patch');
  const ids = new Set<string>();
  const space: Space = typeof choice.whose === 'string' ? 'class' : `student:${choice.whose.student}`;
  const { answers = 'given' } = choice;
  const all = [...prepared, ...written];
  const known = new Set(all.map(({ id }) => id));
  const answerOnly = shownByAnswers(all);
  // Who sees what is covered, sees also what is shown only by a tap, unless it is part of an answer.
  const isUncovered = ({ id, standIn }: Mark) =>
    !choice.covered && answers !== 'none' && !standIn && !answerOnly.has(id);
  const isSeen = (mark: Mark) =>
    isStanding(isUncovered(mark) ? { ...mark, hidden: false } : mark, space, ids, known);
  const below = choice.prepared ? prepared : prepared.filter(({ kind }) => kind === 'patch');
  const chosen = written.filter((mark) => isChosen(mark, choice.whose, isStudent));
  const above = answers === 'given' ? chosen : chosen.filter(({ standIn }) => !standIn);
  if (answers === 'key' && choice.prepared) above.push(...solved(all));
  for (const { id } of above) ids.add(id);
  return [...below, ...above]
    .filter((mark) => isWanted(mark) && isSeen(mark))
    .sort(lowestFirst(new Set(prepared)));
}

function isChosen({ author, space }: Mark, whose: Whose, isStudent: (author: string) => boolean): boolean {
  if (whose === 'everybody') return space === 'class';
  if (whose === 'teacher') return space === 'class' && !isStudent(author);
  const own: Space = `student:${whose.student}`;
  return space === own || author === whose.student;
}

/** Prepared marks lie below all others. */
function lowestFirst(prepared: ReadonlySet<Mark>) {
  return (a: Mark, b: Mark) => Number(prepared.has(b)) - Number(prepared.has(a)) || byOrder(a, b);
}
