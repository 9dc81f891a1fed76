import type { HandoutPage } from '../handout/sources.js';
import type { FillMark } from '../marks/fill/fillMark.js';
import type { Mark } from '../marks/mark.js';
import { boundsOf } from '../marks/select.js';
import { textHeight } from '../marks/text/textLayout.js';
import type { TextMark } from '../marks/text/textMark.js';
import { plainText } from '../marks/text/textMark.js';
import { isBoundless, pageExtent } from '../pages/extent.js';
import type { Page } from '../pages/page.js';

/** A step of an explanation: a page as it was then, and the words that go with it. */
export interface ExplainedStep {
  readonly page: Page;
  readonly marks: readonly Mark[];
  readonly alts: Readonly<Record<string, string>>;
  /** The chapter and the time, what is to be done then, and what was said until then; any but the first may be empty. */
  readonly heading: string;
  readonly task: string;
  readonly said: string;
}

/** A link, and the code by which it is read from paper (ISO/IEC 18004). */
export interface CodedLink {
  readonly url: string;
  /** Modules along a side, and which of them are dark; row by row. */
  readonly size: number;
  readonly dark: readonly boolean[];
}

/** Shares of the width of a page: letters, margins and the code with its quiet zone. */
const LETTERS = 1 / 52;
const MARGIN = 1 / 40;
const CODE = 1 / 8;
/** Modules of the quiet zone round a code (ISO/IEC 18004 §6.3.8). */
const QUIET = 4;

/** Pages of a handout, one for each step, with the words below it and, where there is a link, its code beside them. */
export function stepPages(steps: readonly ExplainedStep[], link: CodedLink | undefined): HandoutPage[] {
  return steps.map((step, i) => {
    const id = `step-${i + 1}`;
    const { x, y, width, height } = pageExtent(step.page, [boundsOf(step.marks)]);
    const margin = width * MARGIN;
    const code = link ? width * CODE : 0;
    const room = width - 2 * margin - (link ? code + margin : 0);
    const words: TextMark[] = [];
    let top = y + height + margin;
    const letters = width * LETTERS;
    const write = (text: string, size: number, bold: boolean) => {
      if (text === '') return;
      const mark = textMark(text, {
        x: x + margin,
        y: top,
        width: room,
        size,
        bold,
        page: id,
        number: words.length,
      });
      words.push(mark);
      top += textHeight(mark) + letters / 3;
    };
    write(step.heading, letters, true);
    write(step.task, letters * 1.2, true);
    write(step.said, letters, false);
    if (link) write(link.url, letters * 0.6, false);
    const codes = link
      ? [codeMark(link, { x: x + width - margin - code, y: y + height + margin, side: code, page: id })]
      : [];
    const below = Math.max(top, link ? y + height + margin + code : 0) + margin - (y + height);
    return {
      page: { ...step.page, id, title: step.heading },
      marks: [...step.marks, ...words, ...codes],
      alts: { ...step.alts, ...(codes[0] && link && { [codes[0].id]: link.url }) },
      // A boundless page is as large as what lies on it.
      ...(!isBoundless(step.page) && { below }),
    };
  });
}

const SHARED = {
  author: '',
  space: 'class',
  order: 'a0',
  locked: false,
  group: null,
  alt: null,
  createdAt: 0,
} as const;

interface WordsPlace {
  x: number;
  y: number;
  width: number;
  size: number;
  bold: boolean;
  page: string;
  number: number;
}

function textMark(text: string, { x, y, width, size, bold, page, number }: WordsPlace): TextMark {
  return {
    ...SHARED,
    kind: 'text',
    id: `${page}-words-${number}`,
    page,
    text,
    ...{ x, y, width, rotation: 0 },
    style: plainText(size, bold),
  };
}

/** The dark modules of a code, row by row as rectangles. */
function codeMark(
  { size, dark }: CodedLink,
  { x, y, side, page }: { x: number; y: number; side: number; page: string },
): FillMark {
  const module = side / (size + 2 * QUIET);
  const place = (at: number) => (at + QUIET) * module;
  const rings: number[][] = [];
  for (let row = 0; row < size; row++)
    for (let column = 0; column < size; column++) {
      if (!dark[row * size + column]) continue;
      let end = column;
      while (end < size && dark[row * size + end]) end++;
      const [left, right, top, bottom] = [
        x + place(column),
        x + place(end),
        y + place(row),
        y + place(row + 1),
      ];
      rings.push([left, top, right, top, right, bottom, left, bottom]);
      column = end;
    }
  return {
    ...SHARED,
    kind: 'fill',
    id: `${page}-code`,
    page,
    rings,
    style: { colour: '#000000', opacity: 1 },
  };
}
