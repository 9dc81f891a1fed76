import type {
  LineStyle,
  Page,
  NoteMark,
  PatchMark,
  PathMark,
  ShapeMark,
  StrokeMark,
  TextMark,
  TextStyle,
} from '../../src/index.js';

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
    group: null,
    alt: null,
    createdAt: 0,
    style: { nature: 'pen', colour: '#000000', width: 4, opacity: 1 },
    points: [10, 10, 0.5, 0, 60, 40, 0.5, 16, 110, 20, 0.5, 32],
    pressure: false,
    ...set,
  };
}

/** The parts of a mark that do not depend on its kind. */
export function common() {
  const { id, page, author, space, order, locked, group, alt, createdAt } = aStroke();
  return { id, page, author, space, order, locked, group, alt, createdAt };
}

export const TEXT_STYLE: TextStyle = {
  font: 'andika',
  size: 20,
  colour: '#0072b2',
  bold: false,
  italic: false,
  underline: false,
  background: null,
  align: 'left',
  list: 'none',
};

export const LINE_STYLE: LineStyle = {
  line: '#d55e00',
  width: 3,
  dash: 'solid',
  fill: '#f0e442',
  opacity: 1,
};

export function aText(set: Partial<TextMark> = {}): TextMark {
  return {
    ...common(),
    kind: 'text',
    style: TEXT_STYLE,
    x: 50,
    y: 60,
    width: 200,
    rotation: 0,
    text: 'Hello class',
    ...set,
  };
}

export function aShape(set: Partial<ShapeMark> = {}): ShapeMark {
  const box = { x: 100, y: 100, width: 200, height: 120, rotation: 0, flip: false };
  return { ...common(), kind: 'shape', form: 'rectangle', sides: 5, style: LINE_STYLE, ...box, ...set };
}

export function aNote(set: Partial<NoteMark> = {}): NoteMark {
  const box = { x: 100, y: 100, width: 170, height: 170, rotation: 0 };
  return {
    ...common(),
    kind: 'note',
    text: 'An idea',
    style: { colour: '#f0e442', font: 'andika' },
    ...box,
    ...set,
  };
}

export function patchOver(page: string): PatchMark {
  const box = { x: 40, y: 40, width: 120, height: 50, rotation: 0 };
  return { ...common(), page, kind: 'patch', style: { colour: '#5b6b8c' }, ...box };
}

export function aPath(set: Partial<PathMark> = {}): PathMark {
  return {
    ...common(),
    kind: 'path',
    course: 'straight',
    points: [50, 400, 250, 450],
    closed: false,
    heads: 'end',
    from: null,
    to: null,
    style: LINE_STYLE,
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
    surface: { kind: 'blank', colour: '#ffffff', ruling: 'plain', spacing: 5 },
    removed: false,
    ...set,
  };
}
