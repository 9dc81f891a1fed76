import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Change, LoggedOperation, Mark } from '../src/index.js';
import {
  applyChanges,
  emptyState,
  FREE,
  isIn,
  PageHistory,
  refusalOf,
  restoringChanges,
} from '../src/index.js';
import { aPage, aStroke, aText } from './helpers/marks.js';

const TEACHER = { id: 'ada', role: 'teacher', tables: [] } as const;

/** What is done by turns to two pages and in two spaces. */
const step = fc.record({
  what: fc.constantFrom('add', 'add', 'patch', 'lock', 'remove', 'paper', 'title'),
  page: fc.constantFrom('page-1', 'page-2'),
  space: fc.constantFrom('class' as const, 'student:wren' as const),
  which: fc.nat(20),
  x: fc.nat(99),
});
type Step = typeof step extends fc.Arbitrary<infer T> ? T : never;

/** A log in which steps were done, and the marks of the first page's class space after each of its operations. */
function logOf(steps: readonly Step[]) {
  const state = emptyState();
  const logged: LoggedOperation[] = [];
  const seen: { marks: Mark[]; width: number | undefined }[] = [];
  const marksHere = () =>
    [...state.marks.values()].filter(({ page, space }) => page === 'page-1' && space === 'class');
  const note = (changes: Change[]) => {
    applyChanges(state, changes);
    const seq = logged.length + 1;
    logged.push({ seq, author: 'ada', at: seq * 1000, operation: { id: `op-${seq}`, changes } });
    seen.push({ marks: marksHere(), width: state.pages.get('page-1')?.width });
  };
  note([
    { do: 'addPage', page: aPage() },
    { do: 'addPage', page: aPage({ id: 'page-2' }) },
  ]);
  for (const { what, page, space, which, x } of steps) {
    const mark = [...state.marks.values()][which % Math.max(1, state.marks.size)];
    if (what === 'add')
      note([{ do: 'add', mark: x % 2 ? aStroke({ page, space }) : aText({ page, space, x }) }]);
    else if (what === 'paper') note([{ do: 'patchPage', page, set: { width: 500 + x } }]);
    else if (what === 'title') note([{ do: 'patchPage', page, set: { title: `Sheet ${x}` } }]);
    else if (mark && what === 'patch') note([{ do: 'patch', mark: mark.id, set: { alt: `${x}` } }]);
    else if (mark && what === 'lock') note([{ do: 'patch', mark: mark.id, set: { locked: !mark.locked } }]);
    else if (mark) note([{ do: 'remove', mark: mark.id }]);
  }
  return { state, logged, seen };
}

const byId = (marks: Iterable<Mark>) => [...marks].sort((a, b) => (a.id < b.id ? -1 : 1));

describe('the history of a page', () => {
  it('has each state that the page and the space were in, asked for in any order', () => {
    fc.assert(
      fc.property(
        fc.array(step, { maxLength: 200 }),
        fc.array(fc.nat(), { maxLength: 8 }),
        (steps, asked) => {
          const { logged, seen } = logOf(steps);
          const history = new PageHistory('page-1', isIn('class'), logged);
          for (const n of asked.map((some) => some % (logged.length + 1))) {
            const { page, marks } = history.after(history.countAt(n));
            const then = seen[n - 1] ?? { marks: [], width: undefined };
            expect(byId(marks.values())).toEqual(byId(then.marks));
            expect(page?.width).toBe(then.width);
          }
        },
      ),
    );
  });

  it('brings back any state by changes that a teacher may make, and touches nothing else', () => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 80 }), fc.nat(), (steps, some) => {
        const { state, logged, seen } = logOf(steps);
        const history = new PageHistory('page-1', isIn('class'), logged);
        const n = 1 + (some % logged.length);
        const elsewhere = () =>
          byId([...state.marks.values()].filter(({ page, space }) => page !== 'page-1' || space !== 'class'));
        const [others, { title, order }] = [elsewhere(), state.pages.get('page-1')!];
        const changes = restoringChanges(
          history.after(history.steps.length),
          history.after(history.countAt(n)),
        );
        expect(refusalOf({ id: 'back', changes }, TEACHER, state, FREE)).toBeUndefined();
        applyChanges(state, changes);
        const here = [...state.marks.values()].filter(
          ({ page, space }) => page === 'page-1' && space === 'class',
        );
        expect(byId(here)).toEqual(byId(seen[n - 1]!.marks));
        expect(state.pages.get('page-1')).toMatchObject({ title, order, width: seen[n - 1]!.width });
        expect(elsewhere()).toEqual(others);
      }),
    );
  });

  it('counts only what was done to the page and the space', () => {
    const here = aStroke();
    const { logged } = logOf([]);
    const operations = [
      [{ do: 'add', mark: here }],
      [{ do: 'add', mark: aStroke({ page: 'page-2' }) }],
      [{ do: 'add', mark: aStroke({ space: 'student:wren' }) }],
      [{ do: 'patch', mark: here.id, set: { locked: true } }],
      [{ do: 'remove', mark: 'elsewhere' }],
    ].map((changes, i) => ({
      seq: i + 2,
      author: 'ada',
      at: 0,
      operation: { id: `${i}`, changes: changes as Change[] },
    }));
    const history = new PageHistory('page-1', isIn('class'), [...logged, ...operations]);
    expect(history.steps.map(({ seq }) => seq)).toEqual([1, 2, 5]);
    expect(() => history.after(4)).toThrow(RangeError);
  });
});
