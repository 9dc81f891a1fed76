import type { InkStyle, Mark, Page } from '@doodla/core';
import { orderOnTop } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import { arrowStroke, lineStroke, ringStroke, shaky, tickStroke } from './handStrokes.js';

/** Somebody who writes in the past class. */
export interface Writer {
  id: string;
  colour: string;
}

export interface TimedMark {
  /** Milliseconds after the class began. */
  at: number;
  mark: Mark;
}

const MINUTE = 60_000;
/** When the class came to its second page. */
export const TURNED_AFTER_MS = 21.5 * MINUTE;

const PLAIN_TEXT = {
  font: 'andika',
  bold: false,
  italic: false,
  underline: false,
  background: null,
  align: 'left',
  list: 'none',
} as const;

/** What the teacher and six students wrote on the worksheet, in the order in which they did. */
export function pastClassMarks(
  pages: readonly Page[],
  teacher: Writer,
  students: readonly Writer[],
  openedAt: number,
): TimedMark[] {
  const [sheet, answers] = pages as [Page, Page];
  const wobble = shaky(41);
  const marks: TimedMark[] = [];
  const orders: string[] = [];
  const put = (page: Page, writer: Writer, minute: number, own: object) => {
    const order = orderOnTop(orders);
    orders.push(order);
    const at = Math.round(minute * MINUTE);
    const common = {
      id: randomUUID(),
      page: page.id,
      author: writer.id,
      space: 'class',
      order,
      locked: false,
      group: null,
      alt: null,
      createdAt: openedAt + at,
    };
    marks.push({ at, mark: { ...common, ...own } as Mark });
  };
  const ink = (page: Page, writer: Writer, minute: number, points: number[], style: Partial<InkStyle> = {}) =>
    put(page, writer, minute, {
      kind: 'stroke',
      style: { nature: 'pen', colour: writer.colour, width: 4, opacity: 1, ...style },
      points,
      pressure: true,
    });
  const type = (
    page: Page,
    writer: Writer,
    minute: number,
    x: number,
    y: number,
    text: string,
    size = 20,
    width = 300,
  ) =>
    put(page, writer, minute, {
      kind: 'text',
      style: { ...PLAIN_TEXT, size, colour: writer.colour },
      rotation: 0,
      x,
      y,
      width,
      text,
    });
  const highlight = (page: Page, minute: number, x0: number, y: number, x1: number) =>
    ink(
      page,
      teacher,
      minute,
      lineStroke(x0, y, x1, y, () => 0),
      { nature: 'highlighter', colour: '#f0e442', width: 22, opacity: 0.55 },
    );

  highlight(sheet, 1, 100, 209, 282);
  ink(sheet, teacher, 2, arrowStroke(400, 300, 300, 395, wobble));
  ink(sheet, teacher, 2.3, arrowStroke(400, 300, 500, 395, wobble));
  type(sheet, teacher, 3, 560, 228, 'The load splits\nand runs into\nboth banks.', 20, 200);
  const [a, b, c, d, e, f] = students as [Writer, Writer, Writer, Writer, Writer, Writer];
  type(sheet, a, 6, 70, 262, 'deck', 20, 80);
  ink(sheet, a, 6.2, arrowStroke(118, 288, 190, 330, wobble), { width: 3 });
  type(sheet, b, 6.5, 330, 262, 'arch', 20, 80);
  ink(sheet, b, 6.8, arrowStroke(350, 292, 345, 345, wobble), { width: 3 });
  type(sheet, c, 7, 620, 420, 'bank', 20, 90);
  ink(sheet, c, 7.2, ringStroke(645, 390, 60, 38, wobble), { width: 3 });
  for (let bay = 0; bay < 3; bay++) {
    ink(sheet, d, 9 + bay, lineStroke(210 + bay * 132, 672, 262 + bay * 132, 672, wobble), { width: 5 });
  }
  ink(sheet, e, 10, ringStroke(400, 586, 175, 22, wobble), { width: 3 });
  type(sheet, e, 10.5, 500, 545, 'pushed', 18, 120);
  ink(sheet, f, 11, lineStroke(252, 668, 228, 600, wobble), { width: 5 });
  type(sheet, f, 14, 90, 905, '1240 ÷ 28 = 44.28…', 24, 300);
  type(sheet, a, 15, 430, 905, 'about 44 g', 24, 200);
  ink(sheet, teacher, 16, tickStroke(560, 915, wobble), { colour: '#009e73', width: 5 });
  ink(sheet, teacher, 17, lineStroke(430, 942, 545, 942, wobble), { colour: '#009e73' });
  highlight(answers, 22, 100, 620, 700);
  ink(answers, teacher, 24, ringStroke(330, 620, 60, 24, wobble));
  type(
    answers,
    teacher,
    26,
    90,
    720,
    'Twice as long means twice the bending. Next week we test it.',
    22,
    520,
  );
  return marks;
}
