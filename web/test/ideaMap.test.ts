import type { Change, Mark } from '@doodla/core';
import type { Idea, IdeaLayout, OutlineItem } from '@doodla/core/idea-map';
import { ideasOf, wordsOf } from '@doodla/core/idea-map';
import { describe, expect, it } from 'vitest';
import { common } from '../../core/test/helpers/marks.js';
import { patchMark } from '../../core/src/ops/apply.js';
import { freeRight } from '../src/ideaMap/freeRight';
import { IdeaDesk } from '../src/ideaMap/ideaDesk';
import { doings, ideaKey, rowsOf } from '../src/ideaMap/ideaRows';
import { outlineIn, readOutline } from '../src/ideaMap/outlineFiles';

/** Somebody's page: prepared marks lie below, which only whoever prepares may change. */
class Page {
  readonly own = new Map<string, Mark>();
  readonly prepared = new Map<string, Mark>();
  mayPut = true;
  steps = 0;
  readonly desk = {
    layers: [{ log: { state: { marks: this.prepared } } }, { log: { state: { marks: this.own } } }],
    pageId: { get: () => 'page-1' },
    shownSpace: 'class',
    isTeacher: true,
    mayTouch: () => true,
    middle: () => ({ x: 640, y: 360 }),
    newMark: (id: string) => (this.mayPut ? { ...common(), id, page: 'page-1' } : undefined),
    settle: () => undefined,
    target: { state: { marks: this.own }, perform: (changes: Change[]) => this.perform(changes) },
  };
  readonly ideas = new IdeaDesk(this.desk as never);
  root: string | undefined;

  start(outline: OutlineItem, layout: IdeaLayout): string {
    this.root = this.ideas.start(outline, layout);
    return this.root!;
  }

  get map(): Idea {
    return this.ideas.find(this.root)!;
  }

  perform(changes: readonly Change[]): string {
    this.steps += 1;
    for (const change of changes)
      if (change.do === 'add') this.own.set(change.mark.id, change.mark);
      else if (change.do === 'remove') this.own.delete(change.mark);
      else if (change.do === 'patch')
        this.own.set(change.mark, patchMark(this.own.get(change.mark)!, change.set));
    return 'step';
  }

  get words(): string[] {
    return rowsOf(this.map).map(({ idea, depth }) => '>'.repeat(depth) + wordsOf(idea));
  }

  /** A key in the row of an idea. */
  press(
    words: string,
    keys: { key: string; altKey?: boolean; ctrlKey?: boolean },
    text = words,
  ): string | undefined {
    const { map } = this;
    const rows = rowsOf(map);
    let current: string | undefined;
    const event = { altKey: false, ctrlKey: false, metaKey: false, preventDefault: () => undefined, ...keys };
    ideaKey({
      ...{ event, rows, text, at: rows.findIndex(({ idea }) => wordsOf(idea) === words) },
      onCurrent: (id) => (current = id),
      mayTouch: this.ideas.mayTouch,
      change: (what) =>
        void this.ideas.change(map.mark.id, this.ideas.layoutOf(map), (edit) => {
          current = what(edit) ?? undefined;
        }),
    });
    return current;
  }
}

const OUTLINE = outlineIn('Water\n  Ice\n    Snow\n  Vapour', 'x');

describe('the outline of an idea map', () => {
  it('is made and changed by keys alone, each one step', () => {
    const page = new Page();
    const root = page.start(outlineIn('Water', 'x'), 'sides');
    const first = page.press('Water', { key: 'Enter' })!;
    page.ideas.change(root, 'sides', (edit) => edit.setText(first, 'Ice'));
    const second = page.press('Ice', { key: 'Enter' })!;
    page.ideas.change(root, 'sides', (edit) => edit.setText(second, 'Snow'));
    expect(page.words).toEqual(['Water', '>Ice', '>Snow']);
    page.press('Snow', { key: 'ArrowRight', altKey: true });
    expect(page.words).toEqual(['Water', '>Ice', '>>Snow']);
    page.press('Snow', { key: 'Enter', ctrlKey: true });
    expect(page.words).toEqual(['Water', '>Ice', '>>Snow', '>>> ']);
    expect(page.press(' ', { key: 'Backspace' }, '')).toBeDefined();
    page.press('Snow', { key: 'ArrowLeft', altKey: true });
    page.press('Snow', { key: 'ArrowUp', altKey: true });
    expect(page.words).toEqual(['Water', '>Snow', '>Ice']);
    page.press('Snow', { key: 'ArrowDown', altKey: true });
    expect(page.words).toEqual(['Water', '>Ice', '>Snow']);
    expect(page.steps).toBe(11);
    expect(page.ideas.layoutOf(page.map)).toBe('sides');
  });

  it('goes from row to row by arrows, and does nothing where there is nothing to be done', () => {
    const page = new Page();
    page.start(OUTLINE, 'down');
    const { steps } = page;
    const idOf = (words: string) => ideasOf(page.map).find((idea) => wordsOf(idea) === words)!.mark.id;
    expect(page.press('Ice', { key: 'ArrowDown' })).toBe(idOf('Snow'));
    expect(page.press('Ice', { key: 'ArrowUp' })).toBe(idOf('Water'));
    expect(page.press('Water', { key: 'ArrowUp' })).toBeUndefined();
    for (const key of ['ArrowUp', 'ArrowRight', 'ArrowLeft']) page.press('Ice', { key, altKey: true });
    page.press('Water', { key: 'Backspace' }, '');
    page.press('Ice', { key: 'a' });
    expect(page.steps).toBe(steps);
    const rows = rowsOf(page.map);
    expect(Object.entries(doings(rows, 0, () => true)).flatMap(([name, what]) => (what ? name : []))).toEqual(
      ['child'],
    );
  });

  it('shows no rows of what is folded away', () => {
    const page = new Page();
    const root = page.start(OUTLINE, 'sides');
    const ice = page.map.children[0]!.mark.id;
    page.ideas.change(root, 'sides', (edit) => edit.fold(ice, true));
    expect(page.words).toEqual(['Water', '>Ice', '>Vapour']);
  });
});

describe('an idea map in a class', () => {
  it('that was prepared stays as it is, and gets ideas of the class', () => {
    const page = new Page();
    const root = page.start(OUTLINE, 'sides');
    for (const [id, mark] of page.own) page.prepared.set(id, mark);
    page.own.clear();
    const before = JSON.stringify([...page.prepared.values()]);
    const map = page.map;
    expect(page.ideas.mayTouch(map.mark)).toBe(false);
    expect(page.ideas.layoutOf(map)).toBeUndefined();
    page.ideas.change(root, undefined, (edit) =>
      edit.add(map.children[1]!.mark.id, 0, { text: 'Clouds', children: [] }),
    );
    expect(page.words).toEqual(['Water', '>Ice', '>>Snow', '>Vapour', '>>Clouds']);
    expect(JSON.stringify([...page.prepared.values()])).toBe(before);
    const can = (words: string) => {
      const rows = rowsOf(page.map);
      const at = rows.findIndex(({ idea }) => wordsOf(idea) === words);
      return Object.entries(doings(rows, at, page.ideas.mayTouch)).flatMap(([name, what]) =>
        what ? name : [],
      );
    };
    expect(can('Ice')).toEqual(['child', 'sibling']);
    expect(can('Clouds')).toEqual(['child', 'sibling', 'outwards', 'remove']);
  });

  it('stays laid out by itself where somebody else hung an idea on it, and not where one was moved', () => {
    const page = new Page();
    const root = page.start(OUTLINE, 'sides');
    expect(page.ideas.layoutOf(page.map)).toBe('sides');
    // As a browser does that may not move what is there.
    page.ideas.change(root, undefined, (edit) =>
      edit.add(page.map.children[0]!.mark.id, 9, { text: 'Hail', children: [] }),
    );
    expect(page.ideas.layoutOf(page.map)).toBe('sides');
    expect(new IdeaDesk(page.desk as never).layoutOf(page.map)).toBeUndefined();
    const { id } = page.map.children[0]!.mark;
    page.own.set(id, patchMark(page.own.get(id)!, { x: 5 }));
    expect(page.ideas.layoutOf(page.map)).toBeUndefined();
  });

  it('is found again on its page where it was only begun', () => {
    const page = new Page();
    expect(page.ideas.find(undefined)).toBeUndefined();
    const root = page.start(outlineIn('Water', 'x'), 'sides');
    expect(page.ideas.find(undefined)!.mark.id).toBe(root);
  });

  it('takes the place of one that was only begun, in one step', () => {
    const page = new Page();
    const begun = page.start(outlineIn('Our topic', 'x'), 'sides');
    const steps = page.steps;
    page.root = page.ideas.start(OUTLINE, 'sides', begun);
    expect(page.steps).toBe(steps + 1);
    expect(page.own.has(begun)).toBe(false);
    expect(wordsOf(page.map)).toBe(OUTLINE.text);
  });

  it('is not begun where nothing may be put', () => {
    const page = new Page();
    page.mayPut = false;
    expect(page.ideas.start(OUTLINE, 'sides')).toBeUndefined();
    expect(page.ideas.change('x', 'sides', () => undefined)).toBe(false);
  });
});

describe('the panel', () => {
  const box = (left: number, top: number, right: number, bottom: number) => ({ left, top, right, bottom });
  const panel = box(900, 80, 1220, 480);

  it('lies at the right edge, or beside bars that lie there', () => {
    expect(freeRight(panel, [], 1280)).toBe(8);
    expect(freeRight(panel, [box(840, 0, 1280, 60), box(600, 740, 1280, 800)], 1280)).toBe(8);
    const column = box(1100, 8, 1272, 580);
    expect(freeRight(panel, [column], 1280)).toBe(188);
    expect(freeRight(panel, [box(700, 100, 800, 300), column], 1280)).toBe(588);
  });

  it('stays at the edge where bars leave it no place', () => {
    expect(freeRight(panel, [box(100, 0, 1280, 800)], 1280)).toBe(8);
  });
});

describe('an outline that is read', () => {
  it.each([
    [
      'OPML',
      '<?xml version="1.0"?><opml version="2.0"><body><outline text="Water"><outline text="Ice"/></outline></body></opml>',
    ],
    ['Markdown', '# Water\n\n- Ice\n'],
    ['lines', 'Water\n\tIce'],
  ])('is known as %s by itself', (_kind, text) => {
    expect(outlineIn(text, 'x')).toEqual({ text: 'Water', children: [{ text: 'Ice', children: [] }] });
  });

  it('says what to do where it cannot be read', async () => {
    expect(() => outlineIn('', 'x')).toThrow('one to a line');
    expect(() => outlineIn('<opml><body><outline', 'x')).toThrow('save it as OPML or Markdown again');
    expect(() => outlineIn('a\n'.repeat(1200), 'x')).toThrow('take a part of them');
    await expect(readOutline(new File([new Uint8Array(2_000_001)], 'a.opml'))).rejects.toThrow(
      'larger than 2 MB',
    );
    expect(await readOutline(new File(['a\nb'], 'Rivers.txt'))).toMatchObject({ text: 'Rivers' });
  });
});
