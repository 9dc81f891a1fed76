import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Actor, Change, IdeaRules, Mark, MarkOf } from '../src/index.js';
import {
  applyChanges,
  areIdeas,
  contrast,
  onWhite,
  STUDENT_COLOURS,
  arrangeChanges,
  arrangeIdeas,
  FREE,
  heapsOf,
  IDEAS_AT_FIRST,
  isMark,
  isMarkPatch,
  refusalOf,
  stateOf,
  undoChanges,
  withIdeas,
} from '../src/index.js';
import { aNote, aPage, aShape, aText } from './helpers/marks.js';

const PAGE = aPage({ width: 1280, height: 720 });
const note = (id: string, set: Partial<MarkOf<'note'>> = {}): MarkOf<'note'> =>
  aNote({
    id,
    page: PAGE.id,
    space: 'class',
    order: `a${Number.parseInt(id.replace(/\D/g, '') || '0') % 10}`,
    group: null,
    ...set,
  });
const title = (id: string, group: string, set: Partial<MarkOf<'text'>> = {}): MarkOf<'text'> =>
  aText({ id, page: PAGE.id, space: 'class', group, ...set });

/** Any notes in any groups, some of which have a title, at any places. */
const anyIdeas = fc
  .array(fc.tuple(fc.integer({ min: 0, max: 12 }), fc.integer({ min: 0, max: 2000 })), { maxLength: 320 })
  .chain((notes) => fc.tuple(fc.constant(notes), fc.subarray([1, 2, 3, 4, 5, 6])))
  .map(([notes, titled]): Mark[] => [
    ...notes.map(([group, x], i) => note(`n${i}`, { group: group === 0 ? null : `g${group}`, x, y: x / 2 })),
    ...titled.map((group) => title(`t${group}`, `g${group}`)),
  ]);

interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

const meet = (a: Box, b: Box) =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

const arranged = (marks: readonly Mark[], counts?: Map<string, number>): Mark[] => {
  const state = stateOf({ pages: [PAGE], marks: [...marks] });
  applyChanges(state, arrangeChanges(marks, PAGE, counts));
  return [...state.marks.values()];
};

describe('arranged ideas', () => {
  it('are all on the page, and none lies over another', () => {
    fc.assert(
      fc.property(anyIdeas, (marks) => {
        const places = [...arrangeIdeas(marks, PAGE).values()];
        expect(places.length).toBeGreaterThanOrEqual(marks.filter(({ kind }) => kind === 'note').length);
        for (const [i, one] of places.entries()) {
          expect(one.x).toBeGreaterThanOrEqual(0);
          expect(one.y).toBeGreaterThanOrEqual(0);
          expect(one.x + one.width).toBeLessThanOrEqual(PAGE.width);
          expect(one.y + one.height).toBeLessThanOrEqual(PAGE.height);
          for (const other of places.slice(i + 1)) expect(meet(one, other)).toBe(false);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('can be read: three hundred of them have sides of at least 40 px, thirty of 110', () => {
    const many = (count: number) => Array.from({ length: count }, (_, i) => note(`n${i}`));
    const side = (count: number) => arrangeIdeas(many(count), PAGE).get('n0')!.width;
    expect(side(300)).toBeGreaterThan(40);
    expect(side(30)).toBeGreaterThan(110);
  });

  it('stand there once they are put there, as marks that may be, whatever they were before', () => {
    fc.assert(
      fc.property(anyIdeas, (marks) => {
        for (const change of arrangeChanges(marks, PAGE))
          if (change.do === 'patch')
            expect(isMarkPatch(marks.find(({ id }) => id === change.mark)!.kind, change.set)).toBe(true);
        const after = arranged(marks);
        expect(after.every(isMark)).toBe(true);
        expect(arrangeChanges(after, PAGE)).toEqual([]);
      }),
      { numRuns: 40 },
    );
  });

  it('stand by group under its title, those that belong to none last', () => {
    const marks = [note('1'), note('2', { group: 'g' }), note('3', { group: 'g' }), title('t', 'g')];
    expect(heapsOf(marks).map(({ title: one, notes }) => [one?.id, notes.map(({ id }) => id)])).toEqual([
      ['t', ['2', '3']],
      [undefined, ['1']],
    ]);
    const at = arrangeIdeas(marks, PAGE);
    expect(at.get('t')!.y + at.get('t')!.height).toBeLessThanOrEqual(at.get('2')!.y);
    expect(at.get('t')!.x).toBe(at.get('2')!.x);
    expect(at.get('3')!.x).toBeGreaterThan(at.get('2')!.x);
    expect(at.get('1')!.y).toBeGreaterThan(at.get('2')!.y);
  });

  it('have what has most votes first, in its group and among groups', () => {
    const marks = [
      note('1', { group: 'a' }),
      note('2', { group: 'a' }),
      note('3', { group: 'b' }),
      note('4'),
    ];
    marks.push(note('5', { group: 'b' }));
    const counts = new Map([
      ['2', 1],
      ['5', 4],
    ]);
    const order = heapsOf(marks, counts).flatMap(({ notes }) => notes.map(({ id }) => id));
    expect(order).toEqual(['5', '3', '2', '1', '4']);
  });

  it('leave out titles of groups that have no notes any more, and what is no note', () => {
    const marks = [title('t', 'gone'), note('1'), aShape({ id: 's', page: PAGE.id })];
    expect(arrangeChanges(marks, PAGE)).toContainEqual({ do: 'remove', mark: 't' });
    expect(arranged(marks).map(({ id }) => id)).toEqual(['1', 's']);
    const copy = note('2', { space: 'student:wren' });
    expect(arrangeChanges([copy], PAGE)).toEqual([]);
  });

  it('take a note that is alone and under no title out of its group', () => {
    expect(heapsOf([note('1', { group: 'g' })]).map(({ id }) => id)).toEqual([null]);
    expect(heapsOf([note('1', { group: 'g' }), title('t', 'g')]).map(({ id }) => id)).toEqual(['g']);
  });
});

describe('the paper of a note', () => {
  it('is its writer’s colour mixed with white, on which black words are read', () => {
    expect(onWhite('#000000', 0.5)).toBe('#808080');
    expect(onWhite('#0072b2', 0)).toBe('#ffffff');
    expect(onWhite('#0072b2', 1)).toBe('#0072b2');
    // WCAG 2.2, 1.4.6: at least 7.
    for (const colour of STUDENT_COLOURS)
      expect(contrast(onWhite(colour, 0.35), '#000000')).toBeGreaterThan(7);
  });
});

describe('collecting ideas', () => {
  const collects = (set: Partial<IdeaRules>): Actor => ({
    id: 'wren',
    role: 'student',
    tables: [],
    ideas: { [PAGE.id]: { ...IDEAS_AT_FIRST, ...set } },
  });
  const judge = (actor: Actor, changes: Change[], marks: Mark[] = [], situation = {}) =>
    refusalOf({ id: 'op', changes }, actor, stateOf({ pages: [PAGE], marks }), { ...FREE, ...situation });
  const add = (mark: Mark): Change => ({ do: 'add', mark });
  const own = note('own', { author: 'wren' });
  const other = note('other', { author: 'tove' });

  it('lets students add notes where it says so, whatever else they may put', () => {
    for (const freedom of ['ink', 'words', 'everything'] as const) {
      expect(judge(collects({}), [add(own)], [], { freedom })).toBeUndefined();
      expect(judge(collects({ adding: false }), [add(own)], [], { freedom })).toBe('tool-away');
    }
    expect(judge(collects({}), [add(own)], [], { pensUp: false })).toBe('pens-down');
    const elsewhere = { ...collects({}), ideas: {} };
    expect(judge(elsewhere, [add(own)], [], { freedom: 'ink' })).toBe('tool-away');
  });

  it('lets students put others’ notes together only where it says so, and do nothing else to them', () => {
    const group: Change = { do: 'patch', mark: 'other', set: { group: 'g', order: 'a5' } };
    expect(judge(collects({ grouping: true }), [group], [other])).toBeUndefined();
    expect(judge(collects({}), [group], [other])).toBe('not-yours');
    for (const set of [{ text: 'Mine' }, { group: 'g', text: 'Mine' }, { x: 5 }, { locked: true }])
      expect(judge(collects({ grouping: true }), [{ do: 'patch', mark: 'other', set }], [other])).toBe(
        'not-yours',
      );
    expect(judge(collects({ grouping: true }), [{ do: 'remove', mark: 'other' }], [other])).toBe('not-yours');
    expect(judge(collects({ grouping: true }), [group], [{ ...other, locked: true }])).toBe('locked');
    const copy = { ...other, space: 'student:tove' as const };
    expect(judge(collects({ grouping: true }), [group], [copy])).toBe('not-yours');
    const shape = aShape({ id: 'other', page: PAGE.id, author: 'tove' });
    expect(judge(collects({ grouping: true }), [group], [shape])).toBe('not-yours');
  });

  it('lets whoever puts notes together give the group a title', () => {
    const named = add(title('t', 'g', { author: 'wren' }));
    expect(judge(collects({ grouping: true }), [named], [], { freedom: 'ink' })).toBeUndefined();
    expect(judge(collects({}), [named], [], { freedom: 'ink' })).toBe('tool-away');
  });

  it('lets them take back that they put notes together', () => {
    const inverse: Change[] = [{ do: 'patch', mark: 'other', set: { group: null } }];
    const view = stateOf({ pages: [PAGE], marks: [{ ...other, group: 'g' }] });
    expect(undoChanges(inverse, collects({ grouping: true }), view)).toEqual(inverse);
    expect(undoChanges(inverse, collects({}), view)).toEqual([]);
  });

  it('takes in only what says how, page by page', () => {
    expect(areIdeas({ p1: IDEAS_AT_FIRST, p2: null })).toBe(true);
    for (const bad of [
      null,
      [],
      { p1: {} },
      { p1: { ...IDEAS_AT_FIRST, votes: 21 } },
      { p1: { ...IDEAS_AT_FIRST, votes: -1 } },
      { p1: { ...IDEAS_AT_FIRST, votes: 1.5 } },
      { p1: { ...IDEAS_AT_FIRST, more: true } },
      { 'a b\n': IDEAS_AT_FIRST },
    ])
      expect(areIdeas(bad), JSON.stringify(bad)).toBe(false);
    expect(withIdeas({ p1: IDEAS_AT_FIRST }, { p1: null, p2: IDEAS_AT_FIRST })).toEqual({
      p2: IDEAS_AT_FIRST,
    });
  });
});
