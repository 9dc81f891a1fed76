import type { Actor, Change, MarkOf, TextStyle } from '@doodla/core';
import { beforeEach, describe, expect, it } from 'vitest';
import { Store } from '@doodla/core/client';
import { TextDrafts } from '../src/desk/textDrafts';
import type { TextEdit } from '../src/desk/desk';
import { freshStorage } from './helpers/fakeStorage';

const style = { font: 'andika', size: 20, colour: '#000000' } as TextStyle;
const common = (author: string) => ({
  id: 'm1',
  page: 'p1',
  author,
  space: 'class' as const,
  order: 'a0',
  locked: false,
  group: null,
  alt: null,
  createdAt: 0,
});
const edit: TextEdit = { x: 5, y: 6, width: 100, common: common('ada') };

let mayWrite: boolean;
let performed: Change[][];

function drafts(author = 'ada'): TextDrafts {
  const log = {
    actor: { id: author, role: 'student', tables: [] } as Actor,
    status: new Store({}) as never,
    allows: () => mayWrite,
    perform: (changes: Change[]) => (performed.push(changes), 'step'),
  };
  return new TextDrafts(log, 'sitting');
}

function typing(text: string): TextDrafts {
  const all = drafts();
  all.begin(edit, style);
  all.type(text);
  return all;
}

beforeEach(() => {
  freshStorage();
  mayWrite = true;
  performed = [];
});

describe('text that is being typed', () => {
  it('goes onto the page that it was begun on, in the style in hand', () => {
    const all = typing('beam');
    all.restyle({ ...style, size: 40 });
    all.finish();
    expect(performed).toEqual([
      [
        {
          do: 'add',
          mark: {
            ...common('ada'),
            kind: 'text',
            x: 5,
            y: 6,
            width: 100,
            rotation: 0,
            style: { ...style, size: 40 },
            text: 'beam',
          },
        },
      ],
    ]);
    expect(all.left.get()).toEqual([]);
    expect(localStorage.getItem('doodla.typing sitting')).toBeNull();
  });

  it('is kept where it may not be put, and can be put in later, elsewhere or dropped', () => {
    mayWrite = false;
    const all = typing('87 letters');
    all.finish();
    expect(all.left.get()).toMatchObject([{ text: '87 letters' }]);
    all.putIn(all.left.get()[0]!);
    expect(all.left.get()).toHaveLength(1);
    mayWrite = true;
    all.putIn(all.left.get()[0]!, 'p2');
    expect(performed).toMatchObject([[{ mark: { page: 'p2', text: '87 letters' } }]]);
    expect(all.left.get()).toEqual([]);
    mayWrite = false;
    all.begin(edit, style);
    all.type('more');
    all.finish();
    all.drop(all.left.get()[0]!);
    expect(all.left.get()).toEqual([]);
  });

  it('is there after a reload in the middle of a word, for its author alone', () => {
    typing('A trus');
    expect(drafts('bo').left.get()).toEqual([]);
    expect(drafts().left.get()).toMatchObject([{ text: 'A trus', edit: { common: { page: 'p1' } } }]);
  });

  it('keeps the look of single letters, through a reload too, and says no more of it than it has to', () => {
    const parts = [
      { from: 0, to: 2, bold: true, colour: '#000000' },
      { from: 2, to: 9, scale: 1 },
    ];
    const all = typing('');
    all.type('arch  ', parts);
    const [kept] = drafts().left.get();
    drafts().putIn(kept!);
    all.finish();
    const own = [{ from: 0, to: 2, bold: true }];
    expect(performed).toMatchObject([[{ mark: { parts: own } }], [{ mark: { text: 'arch', parts: own } }]]);
    const [[{ mark }]] = performed as unknown as [[{ mark: MarkOf<'text'> }]];
    const editing = drafts();
    editing.begin({ ...edit, mark: { ...mark, style: { ...style, bold: false } } }, mark.style);
    editing.type('arch', [{ from: 1, to: 3, italic: true }]);
    editing.finish();
    expect(performed.at(-1)).toEqual([
      { do: 'patch', mark: 'm1', set: { text: 'arch', parts: [{ from: 1, to: 3, italic: true }] } },
    ]);
  });

  it('is read where an earlier version kept it, which knew no parts', () => {
    const kept = [{ edit, text: 'old', style }];
    localStorage.setItem('doodla.typing sitting', JSON.stringify(kept));
    expect(drafts().left.get()).toMatchObject([{ text: 'old', parts: [] }]);
  });

  it('is nothing where nothing was typed or changed', () => {
    typing('   ').finish();
    const all = drafts();
    const mark = {
      ...common('ada'),
      kind: 'text' as const,
      x: 1,
      y: 1,
      width: 9,
      rotation: 0,
      style,
      text: 'same',
    };
    all.begin({ ...edit, mark }, style);
    all.finish();
    expect(performed).toEqual([]);
  });

  it('is kept when the server refuses what was already on the page', () => {
    typing('arch').finish();
    const all = drafts();
    all.rescue({ id: 'o', changes: performed[0]! });
    all.rescue({ id: 'u', undoes: 'o', changes: performed[0]! });
    expect(all.left.get()).toMatchObject([{ text: 'arch', edit: { common: { id: 'm1', page: 'p1' } } }]);
  });

  it('reads nothing out of what others have stored in its place', () => {
    for (const nonsense of ['{', '7', '[1, {"text": 5}]']) {
      localStorage.setItem('doodla.typing sitting', nonsense);
      expect(drafts().left.get()).toEqual([]);
    }
  });
});
