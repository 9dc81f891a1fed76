import type { Change, Page } from '@doodla/core';
import { describe, expect, it } from 'vitest';
import { aPage, aStroke, common } from '../../core/test/helpers/marks';
import { MOST_MARKS, putMarks } from '../src/material/putMarks';

type Desk = Parameters<typeof putMarks>[0];

function aDesk(pages: readonly Page[], isTeacher = true) {
  const performed: Change[][] = [];
  const desk = {
    isTeacher,
    page: pages[0],
    pages: { get: () => pages },
    layers: [{ on: () => ({ all: () => [aStroke({ order: 'a5' })] }) }],
    newMark: (_: unknown, page: string) => ({ ...common(), page, author: 'me', order: 'a6' }),
    target: {
      state: { pages: new Map(pages.map((page) => [page.id, page])) },
      perform: (changes: Change[]) => (performed.push(changes), 'step'),
    },
  } as unknown as Desk;
  return { desk, performed };
}

const stroke = (credit?: string) => {
  const { kind, points, style, pressure } = aStroke();
  return { body: { kind, points, style, pressure }, createdAt: 5, ...(credit !== undefined && { credit }) };
};
const marksIn = (changes: readonly Change[]) =>
  changes.flatMap((change) => (change.do === 'add' ? [change.mark] : []));

describe('marks from a file', () => {
  it('go on the shown page as one group, over what is there, with who made them and when', () => {
    const { desk, performed } = aDesk([aPage()]);
    const put = putMarks(desk, [[stroke('Ada'), stroke()]]);
    expect(put).toMatchObject({ count: 2, left: 0 });
    expect(performed).toHaveLength(1);
    const marks = marksIn(performed[0]!);
    expect(put!.shown).toEqual(marks.map(({ id }) => id));
    expect(marks).toMatchObject([{ credit: 'Ada', createdAt: 5, page: 'page-1' }, { createdAt: 5 }]);
    expect(new Set(marks.map(({ group }) => group)).size).toBe(1);
    for (const { order } of marks) expect(order > 'a5').toBe(true);
  });

  it('of several pages go on the pages after it, and on new ones where these are too few', () => {
    const pages = [aPage(), aPage({ id: 'page-2', order: 'a1' })];
    const { desk, performed } = aDesk(pages);
    putMarks(desk, [[stroke()], [stroke()], [stroke()]]);
    const [first] = performed[0]!;
    expect(first).toMatchObject({ do: 'addPage', page: { width: 800, surface: { kind: 'blank' } } });
    const added = first!.do === 'addPage' ? first!.page : undefined;
    expect(added!.order > 'a1').toBe(true);
    expect(marksIn(performed[0]!).map(({ page }) => page)).toEqual(['page-1', 'page-2', added!.id]);
  });

  it('of a student go on the shown page, as their own', () => {
    const { desk, performed } = aDesk([aPage()], false);
    putMarks(desk, [[stroke('The teacher')], [stroke()]]);
    const marks = marksIn(performed[0]!);
    expect(marks.map(({ page }) => page)).toEqual(['page-1', 'page-1']);
    for (const mark of marks) expect(mark.credit).toBeUndefined();
  });

  it('that are too many are left out, and it is said how many', () => {
    const { desk } = aDesk([aPage()]);
    const all = Array.from({ length: MOST_MARKS + 3 }, () => stroke());
    expect(putMarks(desk, [all])).toMatchObject({ count: MOST_MARKS, left: 3 });
  });
});
