import type { Page, StrokeMark, TextMark } from '../../src/index.js';

let count = 0;

export function aStroke(set: Partial<StrokeMark> = {}): StrokeMark {
  count += 1;
  return {
    kind: 'stroke',
    id: `mark-${count}`,
    page: 'page-1',
    author: 'ada',
    space: 'class',
    order: 'a0',
    locked: false,
    createdAt: 0,
    style: { nature: 'pen', colour: '#000000', width: 4, opacity: 1 },
    points: [10, 10, 0.5, 0, 60, 40, 0.5, 16, 110, 20, 0.5, 32],
    pressure: false,
    ...set,
  };
}

export function aText(set: Partial<TextMark> = {}): TextMark {
  const { id, page, author, space, order, locked, createdAt } = aStroke();
  const style = { font: 'andika', size: 20, colour: '#0072b2' } as const;
  return {
    id,
    page,
    author,
    space,
    order,
    locked,
    createdAt,
    kind: 'text',
    style,
    x: 50,
    y: 60,
    width: 200,
    text: 'Hello class',
    ...set,
  };
}

export function aPage(set: Partial<Page> = {}): Page {
  return {
    id: 'page-1',
    order: 'a0',
    title: '',
    width: 800,
    height: 600,
    surface: { kind: 'blank', colour: '#ffffff' },
    removed: false,
    ...set,
  };
}
