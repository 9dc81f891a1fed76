import type { Page } from '../pages/page.js';
import type { Lack, MarkName } from './kind.js';
import type { Mark } from './mark.js';
import { kindOf } from './mark.js';

export interface MarkDescription {
  name: MarkName;
  /** Its description, its words, or which form it is; undefined where it has none. */
  content: string | undefined;
}

/** What a mark is, and what is known of its content. */
export function describeMark(mark: Mark): MarkDescription {
  const kind = kindOf(mark);
  return { name: kind.name(mark), content: mark.alt ?? kind.content(mark) };
}

export interface Finding {
  mark: string;
  problem: Lack;
}

/** What is missing for those who cannot see well: descriptions, contrast, size. */
export function checkMarks(marks: readonly Mark[], page: Pick<Page, 'surface'>): Finding[] {
  const paper = page.surface.kind === 'blank' ? page.surface.colour : '#ffffff';
  return marks.flatMap((mark) => {
    const problems = kindOf(mark).problems?.(mark, paper) ?? [];
    return problems.map((problem) => ({ mark: mark.id, problem }));
  });
}
