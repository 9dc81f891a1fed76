import type { Page } from '../pages/page.js';
import type { Mark } from './mark.js';
import { kindOf } from './mark.js';

/** What a mark is, in words: its kind, and what is known of its content. */
export function describeMark(mark: Mark): string {
  const kind = kindOf(mark);
  const content = mark.alt ?? kind.content(mark);
  return content === undefined ? kind.name(mark) : `${kind.name(mark)}: ${content}`;
}

export interface Finding {
  mark: string;
  problem: string;
}

/** What is missing for those who cannot see well: descriptions, contrast, size. */
export function checkMarks(marks: readonly Mark[], page: Pick<Page, 'surface'>): Finding[] {
  const paper = page.surface.kind === 'blank' ? page.surface.colour : '#ffffff';
  return marks.flatMap((mark) => {
    const problems = kindOf(mark).problems?.(mark, paper) ?? [];
    return problems.map((problem) => ({ mark: mark.id, problem }));
  });
}
