import type { TextMark } from '../marks/text/textMark.js';
import { plainText } from '../marks/text/textMark.js';
import { textLayout } from '../marks/text/textLayout.js';
import type { Page } from '../pages/page.js';
import { UNITS_PER_MM } from '../pages/page.js';
import type { Paragraph } from './paragraphs.js';

/** A page of words, as text marks on blank paper. */
export interface WordPage {
  page: Page;
  marks: readonly TextMark[];
}

/** A4, upright (ISO 216), with margins of 20 mm. Page units. */
const SHEET = { width: 210 * UNITS_PER_MM, height: 297 * UNITS_PER_MM };
const MARGIN = 20 * UNITS_PER_MM;
const INDENT = 24;
const BOTTOM = SHEET.height - MARGIN;

/** Size of letters, room above, and whether they are bold. */
const LOOKS = {
  title: { size: 26, above: 0, bold: true },
  heading: { size: 19, above: 14, bold: true },
  plain: { size: 15, above: 4, bold: false },
  small: { size: 12, above: 8, bold: false },
} as const satisfies Record<Paragraph['look'], object>;

/** Words on as many pages as they need; none reaches beyond the margins. */
export function wordPages(paragraphs: readonly Paragraph[]): WordPage[] {
  const pages: TextMark[][] = [];
  let y = BOTTOM;
  for (let rest = [...paragraphs]; rest.length > 0;) {
    const [paragraph, ...others] = rest as [Paragraph, ...Paragraph[]];
    const text = textOf(paragraph);
    const above = y === MARGIN ? 0 : LOOKS[paragraph.look].above;
    const whole = paragraph.text === '' ? text.style.size : textLayout(text).height;
    if (y + above + whole <= BOTTOM) {
      if (paragraph.text !== '') pages.at(-1)!.push(...placed(text, paragraph, y + above));
      y += above + whole;
      rest = others;
      continue;
    }
    const parts = y === MARGIN ? split(paragraph, text, BOTTOM - y) : undefined;
    if (parts) rest = [...parts, ...others];
    else {
      pages.push([]);
      y = MARGIN;
    }
  }
  return pages.map((marks, i) => ({ page: sheet(i), marks: marks.map((mark) => onPage(mark, i)) }));
}

/** A paragraph that is longer than a page, as two. */
function split(paragraph: Paragraph, text: TextMark, room: number): Paragraph[] | undefined {
  const { lines } = textLayout(text);
  const fit = lines.filter(({ baseline }) => baseline + text.style.size * 0.5 <= room).length;
  if (fit === 0 || fit >= lines.length) return undefined;
  let at = 0;
  for (const { runs } of lines.slice(0, fit)) {
    const words = runs.map((run) => run.text).join('');
    at = paragraph.text.indexOf(words, at) + words.length;
  }
  const cut = (from: number, to: number) =>
    paragraph.parts
      .filter((part) => part.from < to && part.to > from)
      .map((part) => ({ ...part, from: Math.max(part.from, from) - from, to: Math.min(part.to, to) - from }));
  const end = paragraph.text.length;
  return [
    { ...paragraph, text: paragraph.text.slice(0, at), parts: cut(0, at) },
    { ...paragraph, text: paragraph.text.slice(at), parts: cut(at, end), lead: '' },
  ];
}

function textOf({ text, parts, look, indent }: Paragraph): TextMark {
  const { size, bold } = LOOKS[look];
  const x = MARGIN + indent * INDENT;
  const style = plainText(size, bold);
  const shared = { author: '', space: 'class', order: 'a0', locked: false, group: null, alt: null } as const;
  const box = { x, y: 0, width: SHEET.width - MARGIN - x, rotation: 0 };
  return { ...shared, id: '', page: '', createdAt: 0, kind: 'text', text, parts, style, ...box };
}

/** A paragraph at a height, with what stands before it in a list. */
function placed(text: TextMark, { lead }: Paragraph, y: number): TextMark[] {
  const mark = { ...text, y };
  if (lead === '') return [mark];
  return [{ ...mark, text: lead, parts: [], x: mark.x - INDENT, width: INDENT }, mark];
}

function sheet(i: number): Page {
  const surface = { kind: 'blank', colour: '#ffffff', ruling: 'plain', spacing: 10 } as const;
  return { id: `words-${i}`, order: 'a0', title: '', removed: false, ...SHEET, surface };
}

const onPage = (mark: TextMark, i: number): TextMark => ({ ...mark, page: `words-${i}` });
