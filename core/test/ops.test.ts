import { describe, expect, it } from 'vitest';
import type { Actor, Change, LogState, Mark, Operation, Situation } from '../src/index.js';
import {
  FREE,
  applyChanges,
  emptyState,
  invertChanges,
  isChangeList,
  pagesConcerned,
  refusalOf,
  snapshotOf,
  stateOf,
  undoChanges,
  visibleTo,
} from '../src/index.js';
import { aPage, aStroke, aText } from './helpers/marks.js';

const TEACHER: Actor = { id: 'teacher', role: 'teacher', tables: [] };
const ADA: Actor = { id: 'ada', role: 'student', tables: ['t1'] };

function stateWith(...marks: Mark[]): LogState {
  return stateOf({ pages: [aPage()], marks });
}

const operation = (...changes: Change[]): Operation => ({ id: 'op', changes });

describe('apply and invert', () => {
  const text = aText();
  const stroke = aStroke();
  const cases: [string, Change[]][] = [
    ['adding', [{ do: 'add', mark: aStroke() }]],
    ['removing', [{ do: 'remove', mark: stroke.id }]],
    ['changing text', [{ do: 'patch', mark: text.id, set: { text: 'new', x: 9, style: { size: 40 } } }]],
    [
      'several on one mark',
      [
        { do: 'patch', mark: text.id, set: { x: 1 } },
        { do: 'patch', mark: text.id, set: { x: 2 } },
        { do: 'remove', mark: text.id },
      ],
    ],
    [
      'pages',
      [
        { do: 'addPage', page: aPage({ id: 'page-2' }) },
        { do: 'patchPage', page: 'page-1', set: { removed: true } },
      ],
    ],
    ['removing a page', [{ do: 'removePage', page: 'page-1' }]],
  ];
  it.each(cases)('taking back %s restores the state', (_, changes) => {
    const state = stateWith(text, stroke);
    const before = structuredClone(snapshotOf(state, 0));
    const inverse = invertChanges(state, changes);
    applyChanges(state, changes);
    expect(snapshotOf(state, 0)).not.toEqual(before);
    applyChanges(state, inverse);
    const after = snapshotOf(state, 0);
    expect(new Set(after.marks)).toEqual(new Set(before.marks));
    expect(new Set(after.pages)).toEqual(new Set(before.pages));
  });

  it('takes back the first parts of a text, also when the change was stored meanwhile', () => {
    const state = stateWith(text);
    const changes: Change[] = [
      { do: 'patch', mark: text.id, set: { parts: [{ from: 0, to: 2, bold: true }] } },
    ];
    const inverse = JSON.parse(JSON.stringify(invertChanges(state, changes))) as Change[];
    expect(isChangeList(inverse)).toBe(true);
    applyChanges(state, changes);
    applyChanges(state, inverse);
    expect(state.marks.get(text.id)).toEqual({ ...text, parts: [] });
  });

  it('taking back leaves what others changed meanwhile', () => {
    const state = stateWith(text);
    const inverse = invertChanges(state, [{ do: 'patch', mark: text.id, set: { x: 500 } }]);
    applyChanges(state, [{ do: 'patch', mark: text.id, set: { x: 500 } }]);
    applyChanges(state, [{ do: 'patch', mark: text.id, set: { text: 'theirs' } }]);
    applyChanges(state, inverse);
    expect(state.marks.get(text.id)).toMatchObject({ x: text.x, text: 'theirs' });
  });

  it('ignores changes of what is gone', () => {
    const state = stateWith();
    applyChanges(state, [
      { do: 'remove', mark: 'gone' },
      { do: 'patch', mark: 'gone', set: { x: 1 } },
    ]);
    expect(state.marks.size).toBe(0);
  });

  it('an undo leaves out what can no longer be done', () => {
    const changes: Change[] = [
      { do: 'add', mark: stroke },
      { do: 'patch', mark: 'gone', set: { x: 1 } },
      { do: 'remove', mark: text.id },
    ];
    expect(undoChanges(changes, TEACHER, stateWith(stroke, text))).toEqual([{ do: 'remove', mark: text.id }]);
  });
});

describe('permission', () => {
  const foreign = aStroke({ author: 'bo' });
  const own = aStroke({ author: 'ada' });
  const locked = aStroke({ author: 'ada', locked: true });
  const state = stateWith(foreign, own, locked);
  const cases: [string, Actor, Change, Partial<Situation>, string | undefined][] = [
    ['a student adds an own mark', ADA, { do: 'add', mark: aStroke() }, {}, undefined],
    [
      'a student adds in the name of another',
      ADA,
      { do: 'add', mark: aStroke({ author: 'bo' }) },
      {},
      'not-yours',
    ],
    [
      'a student writes on another copy',
      ADA,
      { do: 'add', mark: aStroke({ space: 'student:bo' }) },
      {},
      'not-yours',
    ],
    [
      'a student writes on the own copy',
      ADA,
      { do: 'add', mark: aStroke({ space: 'student:ada' }) },
      {},
      undefined,
    ],
    [
      'a student writes at the own table',
      ADA,
      { do: 'add', mark: aStroke({ space: 'table:t1' }) },
      {},
      undefined,
    ],
    [
      'a student writes at another table',
      ADA,
      { do: 'add', mark: aStroke({ space: 'table:t2' }) },
      {},
      'not-yours',
    ],
    [
      'a student writes while pens are down',
      ADA,
      { do: 'add', mark: aStroke() },
      { pensUp: false },
      'pens-down',
    ],
    ['anybody writes after the end', TEACHER, { do: 'add', mark: aStroke() }, { ended: true }, 'ended'],
    [
      'a mark on a page that is not there',
      ADA,
      { do: 'add', mark: aStroke({ page: 'page-9' }) },
      {},
      'no-such-page',
    ],
    ['a mark that is there already', ADA, { do: 'add', mark: own }, {}, 'already-there'],
    ['a student removes an own mark', ADA, { do: 'remove', mark: own.id }, {}, undefined],
    ['a student removes the mark of another', ADA, { do: 'remove', mark: foreign.id }, {}, 'not-yours'],
    [
      'a student changes the mark of another',
      ADA,
      { do: 'patch', mark: foreign.id, set: { order: 'a1' } },
      {},
      'not-yours',
    ],
    ['a student removes a locked mark', ADA, { do: 'remove', mark: locked.id }, {}, 'locked'],
    ['a student unlocks', ADA, { do: 'patch', mark: locked.id, set: { locked: false } }, {}, 'not-allowed'],
    [
      'a student changes pages',
      ADA,
      { do: 'patchPage', page: 'page-1', set: { removed: true } },
      {},
      'not-allowed',
    ],
    ['the teacher removes the mark of a student', TEACHER, { do: 'remove', mark: foreign.id }, {}, undefined],
    ['the teacher unlocks', TEACHER, { do: 'patch', mark: locked.id, set: { locked: false } }, {}, undefined],
    [
      'the teacher writes while pens are down',
      TEACHER,
      { do: 'add', mark: aStroke() },
      { pensUp: false },
      undefined,
    ],
    [
      'changing a mark that is gone',
      ADA,
      { do: 'patch', mark: 'gone', set: { order: 'a1' } },
      {},
      'no-such-mark',
    ],
    [
      'changing the author',
      TEACHER,
      { do: 'patch', mark: own.id, set: { author: 'x' } as object },
      {},
      'bad-mark',
    ],
  ];
  it.each(cases)('%s', (_, actor, change, situation, reason) => {
    expect(refusalOf(operation(change), actor, state, { ...FREE, ...situation })).toBe(reason);
  });

  const bad: [string, object][] = [
    ['NaN', { points: [NaN, 0, 0.5, 0] }],
    ['null, which is what JSON makes of NaN', { points: [null, 0, 0.5, 0] }],
    ['infinity', { points: [0, Infinity, 0.5, 0] }],
    ['a far away place', { points: [1e9, 0, 0.5, 0] }],
    ['half a point', { points: [1, 2, 0.5] }],
    ['no points', { points: [] }],
    ['pressure above 1', { points: [1, 2, 7, 0] }],
    ['too many points', { points: new Array(100_000).fill(0) }],
    ['a colour name', { style: { ...own.style, colour: 'url(x)' } }],
    ['an unknown field', { evil: true }],
    ['an unknown space', { space: 'everywhere' }],
  ];
  it.each(bad)('refuses a stroke with %s', (_, set) => {
    const mark = { ...aStroke(), ...set } as Mark;
    expect(refusalOf(operation({ do: 'add', mark }), ADA, state, FREE)).toBe('bad-mark');
  });

  it('refuses text that is empty or endless', () => {
    for (const text of ['', 'x'.repeat(10_001)]) {
      expect(refusalOf(operation({ do: 'add', mark: aText({ text }) }), ADA, state, FREE)).toBe('bad-mark');
    }
  });

  it('tells lists of changes from anything else', () => {
    expect(isChangeList([{ do: 'remove', mark: 'a' }])).toBe(true);
    for (const bad of [
      null,
      {},
      [null],
      [{ do: 'drop' }],
      [{ do: 'remove', mark: {} }],
      [{ do: 'remove', mark: 'a', more: 1 }],
      [{ do: 'toString' }],
    ]) {
      expect(isChangeList(bad)).toBe(false);
    }
  });
});

describe('visibility', () => {
  const knownIn = (state: LogState) => (id: string) => state.marks.get(id);
  const mine = aStroke({ space: 'student:ada' });
  const theirs = aStroke({ space: 'student:bo' });
  const logged = (...changes: Change[]) => ({ seq: 7, author: 'x', at: 0, operation: operation(...changes) });

  it('keeps the number and hides what is in the spaces of others', () => {
    const state = stateWith(mine, theirs);
    const seen = visibleTo(
      ADA,
      logged(
        { do: 'add', mark: mine },
        { do: 'add', mark: theirs },
        { do: 'patch', mark: theirs.id, set: { order: 'a1' } },
      ),
      [],
      knownIn(state),
    );
    expect(seen).toEqual(logged({ do: 'add', mark: mine }));
    expect(
      visibleTo(TEACHER, logged({ do: 'add', mark: theirs }), [], knownIn(state)).operation.changes,
    ).toHaveLength(1);
  });

  it('knows from the inverse where a removed mark was', () => {
    const remove: Change = { do: 'remove', mark: theirs.id };
    expect(
      visibleTo(ADA, logged(remove), [{ do: 'add', mark: theirs }], knownIn(emptyState())).operation.changes,
    ).toEqual([]);
  });
});

describe('what an undo may still take back', () => {
  const [free, locked] = [aStroke({ author: 'ada' }), aStroke({ author: 'ada', locked: true })];
  const back = (id: string): Change => ({ do: 'patch', mark: id, set: { order: 'a1' } });

  it('is all but what was locked, removed or put on a page that is gone', () => {
    const state = stateWith(free, locked);
    const lost = aStroke({ page: 'page-9', author: 'ada' });
    const inverse: Change[] = [back(locked.id), back(free.id), back('gone'), { do: 'add', mark: lost }];
    expect(undoChanges(inverse, ADA, state)).toEqual([back(free.id)]);
  });

  it('may depend on what it brings back itself', () => {
    const inverse: Change[] = [{ do: 'add', mark: free }, back(free.id)];
    expect(undoChanges(inverse, ADA, stateWith())).toEqual(inverse);
  });
});

describe('pages', () => {
  const two = () => stateOf({ pages: [aPage(), aPage({ id: 'page-2' })], marks: [] });
  const without = (page: string): Change => ({ do: 'patchPage', page, set: { removed: true } });

  it('never all go, one by one, at once or by taking back', () => {
    expect(refusalOf(operation(without('page-1')), TEACHER, two(), FREE)).toBeUndefined();
    expect(refusalOf(operation(without('page-1'), without('page-2')), TEACHER, two(), FREE)).toBe(
      'last-page',
    );
    const inverse: Change = { do: 'removePage', page: 'page-1' };
    expect(refusalOf({ ...operation(inverse), undoes: 'x' }, TEACHER, stateWith(), FREE)).toBe('last-page');
  });

  it('can be added and written on in one step', () => {
    const page = aPage({ id: 'page-2' });
    const mark = aStroke({ page: page.id });
    expect(
      refusalOf(operation({ do: 'addPage', page }, { do: 'add', mark }), TEACHER, stateWith(), FREE),
    ).toBe(undefined);
  });

  it('tells which of them a step concerns', () => {
    const [here, there] = [aStroke(), aStroke({ page: 'page-2' })];
    const state = stateWith(here);
    const changes: Change[] = [
      { do: 'remove', mark: here.id },
      { do: 'add', mark: there },
    ];
    expect(pagesConcerned(changes, state)).toEqual(['page-1', 'page-2']);
  });
});
