import { contrast, luminance } from '../colour/contrast.js';
import type { Page } from '../pages/page.js';
import type { Mark, MarkKind } from './mark.js';

const KIND_NAMES: Record<MarkKind, string> = {
  stroke: 'Ink',
  text: 'Text',
  shape: 'Shape',
  path: 'Line',
  stamp: 'Stamp',
  note: 'Note',
  picture: 'Picture',
  fill: 'Colour poured',
  quote: 'Marked words',
  patch: 'Patch over an answer',
};

/** What a mark is, in words: its kind, and what is known of its content. */
export function describeMark(mark: Mark): string {
  const name =
    mark.kind === 'stroke'
      ? mark.style.nature === 'highlighter'
        ? 'Highlight'
        : 'Ink'
      : KIND_NAMES[mark.kind];
  const content = mark.alt ?? contentOf(mark);
  return content === undefined ? name : `${name}: ${content}`;
}

function contentOf(mark: Mark): string | undefined {
  switch (mark.kind) {
    case 'text':
    case 'note':
      return mark.text === '' ? 'empty' : mark.text;
    case 'stamp':
      return mark.stamp === 'number' ? mark.label : mark.stamp;
    case 'shape':
      return mark.form;
    case 'quote':
      return mark.exact;
    default:
      return undefined;
  }
}

export interface Finding {
  mark: string;
  problem: string;
}

/** Text below this is too small to be read from the back of a room; page units. */
const SMALL_TEXT = 14;
/** Least contrast of text (WCAG 2.2, 1.4.3), and of large text from 24 units on. */
const CONTRAST = { normal: 4.5, large: 3, largeFrom: 24 };

/** What is missing for those who cannot see well: descriptions, contrast, size. */
export function checkMarks(marks: readonly Mark[], page: Pick<Page, 'surface'>): Finding[] {
  const paper = page.surface.kind === 'blank' ? page.surface.colour : '#ffffff';
  return marks.flatMap((mark) => problemsOf(mark, paper).map((problem) => ({ mark: mark.id, problem })));
}

function problemsOf(mark: Mark, paper: string): string[] {
  if (mark.kind === 'picture' && mark.alt === null) return ['This picture has no description.'];
  if (mark.kind !== 'text') return [];
  const problems: string[] = [];
  const { size, colour, background } = mark.style;
  const ground = background ?? paper;
  const least = size >= CONTRAST.largeFrom ? CONTRAST.large : CONTRAST.normal;
  const ratio = contrast(colour, ground);
  if (ratio < least) {
    const hint = luminance(ground) > 0.5 ? 'darker' : 'lighter';
    problems.push(`This text is hard to read on its ground (contrast ${ratio.toFixed(1)}). Make it ${hint}.`);
  }
  if (size < SMALL_TEXT) problems.push('This text is very small.');
  return problems;
}
