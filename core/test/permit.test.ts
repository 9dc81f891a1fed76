import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Actor, Change, Mark, RefusalCode, Situation, Space } from '../src/index.js';
import { FREE, maySee, REFUSALS, refusalOf, stateOf, visibleTo } from '../src/index.js';
import { aPage, aShape, aStroke, aText } from './helpers/marks.js';

// Who may do what is from the work itself (common practice, no source): a class belongs to its teacher, a mark
// to whoever made it, and a copy of one's own to that student and the teacher.

const TEACHER: Actor = { id: 'teacher', role: 'teacher', tables: [] };
const WREN: Actor = { id: 'wren', role: 'student', tables: ['t1'] };

const PAGE = aPage();
const GONE = aPage({ id: 'gone', removed: true });
const HERE = PAGE.id;

const SPACES: Space[] = ['class', 'student:wren', 'student:nash', 'table:t1', 'table:t2'];
const WRENS: Space[] = ['class', 'student:wren', 'table:t1'];

const mark = (set: Partial<Mark>): Mark => aStroke({ page: HERE, ...set } as never);

/** What comes of one change by an actor, where these marks are. */
function judged(actor: Actor, change: Change, marks: Mark[] = [], situation: Partial<Situation> = {}) {
  const view = stateOf({ pages: [PAGE, GONE], marks });
  return refusalOf({ id: 'op', changes: [change] }, actor, view, { ...FREE, ...situation });
}

const touches = (id: string): Change[] => [
  { do: 'patch', mark: id, set: { order: 'a5' } },
  { do: 'remove', mark: id },
];

describe('what a student may do', () => {
  it.each(SPACES)('with a new mark in the space %s', (space) => {
    const expected = WRENS.includes(space) ? undefined : 'not-yours';
    expect(judged(WREN, { do: 'add', mark: mark({ author: 'wren', space }) })).toBe(expected);
  });

  it.each(SPACES)('with a mark of their own in the space %s', (space) => {
    const own = mark({ author: 'wren', space });
    for (const change of touches(own.id))
      expect(judged(WREN, change, [own])).toBe(WRENS.includes(space) ? undefined : 'not-yours');
  });

  it.each<[string, Change, RefusalCode]>([
    ['write in another’s name', { do: 'add', mark: mark({ author: 'nash' }) }, 'not-yours'],
    ['write in the teacher’s name', { do: 'add', mark: mark({ author: 'teacher' }) }, 'not-yours'],
    ['put a locked mark', { do: 'add', mark: mark({ author: 'wren', locked: true }) }, 'not-allowed'],
    [
      'write on a page that is gone',
      { do: 'add', mark: mark({ author: 'wren', page: 'gone' }) },
      'no-such-page',
    ],
    [
      'write on a page that never was',
      { do: 'add', mark: mark({ author: 'wren', page: 'x' }) },
      'no-such-page',
    ],
    ['change a mark that is gone', { do: 'patch', mark: 'x', set: { order: 'a5' } }, 'no-such-mark'],
    ['add a page', { do: 'addPage', page: aPage({ id: 'new' }) }, 'not-allowed'],
    ['rename a page', { do: 'patchPage', page: HERE, set: { title: 'Mine' } }, 'not-allowed'],
    ['delete a page', { do: 'patchPage', page: HERE, set: { removed: true } }, 'not-allowed'],
    ['clear a page away', { do: 'removePage', page: HERE }, 'not-allowed'],
  ])('is not to %s', (_, change, why) => {
    expect(judged(WREN, change)).toBe(why);
  });

  it('is nothing with marks of others, and no locking of their own', () => {
    for (const author of ['nash', 'teacher']) {
      const theirs = mark({ author });
      for (const change of touches(theirs.id)) expect(judged(WREN, change, [theirs])).toBe('not-yours');
    }
    const own = mark({ author: 'wren' });
    expect(judged(WREN, { do: 'patch', mark: own.id, set: { locked: true } }, [own])).toBe('not-allowed');
    const locked = mark({ author: 'wren', locked: true });
    for (const change of touches(locked.id)) expect(judged(WREN, change, [locked])).toBe('locked');
  });

  it('depends on pens, the end of the class and the room that is left', () => {
    const own = mark({ author: 'wren' });
    const changes: Change[] = [{ do: 'add', mark: mark({ author: 'wren', id: 'new' }) }, ...touches(own.id)];
    for (const change of changes) {
      expect(judged(WREN, change, [own], { pensUp: false })).toBe('pens-down');
      expect(judged(WREN, change, [own], { ended: true })).toBe('ended');
      expect(judged(WREN, change, [own], { full: true })).toBe(change.do === 'add' ? 'too-many' : undefined);
    }
  });
});

describe('what a teacher may do', () => {
  it('is everything with everybody’s marks, pens up or down', () => {
    for (const space of SPACES)
      for (const author of ['wren', 'teacher']) {
        const theirs = mark({ author, space });
        for (const change of touches(theirs.id))
          expect(judged(TEACHER, change, [theirs], { pensUp: false })).toBeUndefined();
      }
  });

  it('is to unlock before a locked mark is changed', () => {
    const locked = mark({ author: 'wren', locked: true });
    for (const change of touches(locked.id)) expect(judged(TEACHER, change, [locked])).toBe('locked');
    expect(
      judged(TEACHER, { do: 'patch', mark: locked.id, set: { locked: false } }, [locked]),
    ).toBeUndefined();
  });

  it('is not to take the last page, and nothing after the end', () => {
    const last: Change = { do: 'patchPage', page: HERE, set: { removed: true } };
    expect(judged(TEACHER, last)).toBe('last-page');
    expect(judged(TEACHER, { do: 'removePage', page: HERE })).toBe('last-page');
    expect(judged(TEACHER, { do: 'patchPage', page: HERE, set: { title: 'x' } }, [], { ended: true })).toBe(
      'ended',
    );
  });

  it('is not to put a page or mark twice', () => {
    const there = mark({ author: 'teacher' });
    expect(judged(TEACHER, { do: 'addPage', page: PAGE })).toBe('already-there');
    expect(judged(TEACHER, { do: 'add', mark: there }, [there])).toBe('already-there');
  });
});

describe('what a student is allowed to put', () => {
  const kinds = [mark({}), aText({ page: HERE }), aShape({ page: HERE })];
  it.each([
    ['ink', [undefined, 'tool-away', 'tool-away']],
    ['words', [undefined, undefined, 'tool-away']],
    ['everything', [undefined, undefined, undefined]],
  ] as const)('is %s, and never less for the teacher', (freedom, expected) => {
    const by = (actor: Actor) =>
      kinds.map((one) => judged(actor, { do: 'add', mark: { ...one, author: actor.id } }, [], { freedom }));
    expect(by(WREN)).toEqual(expected);
    expect(by(TEACHER)).toEqual([undefined, undefined, undefined]);
  });

  it('does not count for what is only put back', () => {
    const shape = { ...aShape({ page: HERE }), author: 'wren' };
    const view = stateOf({ pages: [PAGE], marks: [] });
    const back = { id: 'op', changes: [{ do: 'add' as const, mark: shape }], undoes: 'before' };
    expect(refusalOf(back, WREN, view, { ...FREE, freedom: 'ink' })).toBeUndefined();
  });
});

describe('whose marks a student sees', () => {
  const by = (author: string, space: Space = 'class', page = HERE) => ({ page, author, space });
  const ONLY: Actor = { ...WREN, reads: { only: ['server', 'teacher'] } };
  const SHOWN: Actor = { ...ONLY, shown: { page: HERE, space: 'student:nash' } };
  const NOT: Actor = { ...WREN, reads: { not: ['nash', 'wren'] } };

  it.each([
    ['everybody’s', WREN, by('nash'), true],
    ['the teacher’s', ONLY, by('teacher'), true],
    ['their own, where only the teacher’s are', ONLY, by('wren'), true],
    ['another’s, where only the teacher’s are', ONLY, by('nash'), false],
    ['those of a hidden one', NOT, by('nash'), false],
    ['those of one who is not hidden', NOT, by('tove'), true],
    ['their own, though they are hidden from others', NOT, by('wren'), true],
    ['those of their table', ONLY, by('nash', 'table:t1'), true],
    ['a copy that is shown to all', SHOWN, by('nash', 'student:nash'), true],
    ['another page of whose copy is shown', SHOWN, by('nash', 'student:nash', 'p2'), false],
    ['those of another table', ONLY, by('teacher', 'table:t2'), false],
  ])('%s', (_, actor, belonging, sees) => expect(maySee(belonging, actor)).toBe(sees));
});

describe('refusals', () => {
  it('have a sentence each that ends as one', () => {
    for (const sentence of Object.values(REFUSALS)) expect(sentence).toMatch(/^[A-Z].{10,}\.$/);
  });
});

describe('what a student is told of', () => {
  const someSpace = fc.constantFrom(...SPACES);
  const changes = fc.array(fc.tuple(someSpace, fc.constantFrom('add', 'patch', 'remove')), { maxLength: 12 });

  it('is never anything in a space that is not theirs, and always all that is', () => {
    fc.assert(
      fc.property(changes, (list) => {
        const marks = list.map(([space], i) => mark({ id: `m${i}`, space, author: 'nash' }));
        const made = list.map(([, kind], i): Change => {
          if (kind === 'add') return { do: 'add', mark: marks[i]! };
          if (kind === 'remove') return { do: 'remove', mark: `m${i}` };
          return { do: 'patch', mark: `m${i}`, set: { order: 'a5' } };
        });
        // Those that were removed are known from the inverse alone.
        const inverse = made.flatMap((change, i): Change[] =>
          change.do === 'remove' ? [{ do: 'add', mark: marks[i]! }] : [],
        );
        const known = (id: string) => marks.find((mark, i) => mark.id === id && made[i]!.do === 'patch');
        const logged = { seq: 7, at: 0, author: 'nash', operation: { id: 'op', changes: made } };
        const seen = visibleTo(WREN, logged, inverse, known);
        expect(seen.seq).toBe(7);
        expect(seen.operation.changes).toEqual(made.filter((_, i) => maySee(marks[i]!, WREN)));
        expect(visibleTo(TEACHER, logged as never, inverse, known)).toBe(logged);
      }),
    );
  });

  it('is nothing of a mark whose space nobody knows any more', () => {
    const change: Change = { do: 'patch', mark: 'unknown', set: { order: 'a5' } };
    const logged = { seq: 1, at: 0, author: 'nash', operation: { id: 'op', changes: [change] } };
    expect(visibleTo(WREN, logged as never, [], () => undefined).operation.changes).toEqual([]);
  });
});
