import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Actor, Change, StudentTable } from '../src/index.js';
import {
  areTables,
  areWays,
  fieldsOf,
  isSpace,
  MOST_SEATS,
  seatOf,
  seatSpace,
  makeTables,
  placedBy,
  seatedAt,
  shuffled,
  spaceOn,
} from '../src/index.js';
import { aStroke } from './helpers/marks.js';

const TEACHER: Actor = { id: 'ada', role: 'teacher', tables: [] };
const WREN: Actor = { id: 'wren', role: 'student', tables: ['2'] };
const ALONE: Actor = { ...WREN, tables: [] };

describe('where somebody works on a page', () => {
  it.each([
    ['a teacher, whatever the way', TEACHER, 'own', 'class'],
    ['a student, together', WREN, undefined, 'class'],
    ['a student with a copy of their own', WREN, 'own', 'student:wren'],
    ['a student at a table', WREN, 'tables', 'table:2'],
    ['a student at a table with fields', WREN, 'fields', 'table:2'],
    ['a student without a table', ALONE, 'tables', 'class'],
  ] as const)('%s', (_, actor, way, space) => expect(spaceOn(way, actor)).toBe(space));

  const add = (space: 'class' | 'student:wren'): Change => ({
    do: 'add',
    mark: aStroke({ page: 'p1', space }),
  });
  const spaceOfAdded = (actor: Actor, change: Change) => {
    const placed = placedBy(actor, change, { p1: 'own' });
    return placed.do === 'add' ? placed.mark.space : undefined;
  };

  it('is where things go that were put when it was another way, but never from a copy to all', () => {
    expect(spaceOfAdded(WREN, add('class'))).toBe('student:wren');
    expect(spaceOfAdded(WREN, add('student:wren'))).toBe('student:wren');
    expect(spaceOfAdded(TEACHER, add('class'))).toBe('class');
    const mine = add('student:wren');
    expect(placedBy(WREN, mine, {})).toBe(mine);
    const remove: Change = { do: 'remove', mark: 'm' };
    expect(placedBy(WREN, remove, { p1: 'own' })).toBe(remove);
  });
});

describe('the copies of students who share a screen', () => {
  it('are spaces of their own, told from those of tables', () => {
    const seats = Array.from({ length: MOST_SEATS }, (_, i) => i + 1);
    expect(seats.map((seat) => seatOf(seatSpace(seat)))).toEqual(seats);
    expect(seats.every((seat) => isSpace(seatSpace(seat)))).toBe(true);
    for (const other of ['class', 'table:1', 'student:wren', 'table:seat-'] as const)
      expect(seatOf(other)).toBeUndefined();
  });
});

describe('the fields of a page', () => {
  const extent = { x: 10, y: 20, width: 800, height: 600 };

  it('cover it, and none lies over another, however many there are', () => {
    const sides = fc.record({
      x: fc.integer({ min: -500, max: 500 }),
      y: fc.integer({ min: -500, max: 500 }),
      width: fc.integer({ min: 50, max: 3000 }),
      height: fc.integer({ min: 50, max: 3000 }),
    });
    fc.assert(
      fc.property(sides, fc.integer({ min: 1, max: 30 }), (page, count) => {
        const fields = fieldsOf(page, count);
        expect(fields).toHaveLength(count);
        const area = fields.reduce((sum, { width, height }) => sum + width * height, 0);
        expect(area / (page.width * page.height)).toBeCloseTo(1, 6);
        for (const [i, a] of fields.entries()) {
          expect(a.x).toBeGreaterThanOrEqual(page.x - 1e-6);
          expect(a.y + a.height).toBeLessThanOrEqual(page.y + page.height + 1e-6);
          for (const b of fields.slice(i + 1)) {
            const across = Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x);
            const down = Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y);
            expect(Math.min(across, down)).toBeLessThan(1e-6);
          }
        }
      }),
    );
  });

  it('of four are quarters, of two lie beside each other where the page is wide and below where it is tall', () => {
    expect(fieldsOf(extent, 4)).toEqual([
      { x: 10, y: 20, width: 400, height: 300 },
      { x: 410, y: 20, width: 400, height: 300 },
      { x: 10, y: 320, width: 400, height: 300 },
      { x: 410, y: 320, width: 400, height: 300 },
    ]);
    expect(fieldsOf(extent, 2).map(({ width }) => width)).toEqual([400, 400]);
    expect(fieldsOf({ ...extent, height: 1600 }, 2).map(({ height }) => height)).toEqual([800, 800]);
    expect(fieldsOf(extent, 0)).toEqual([]);
  });
});

describe('tables', () => {
  const students = fc.uniqueArray(fc.stringMatching(/^[a-z]{1,8}$/), { maxLength: 70 });
  const by = fc.oneof(
    fc.record({ size: fc.integer({ min: 1, max: 12 }) }),
    fc.record({ count: fc.integer({ min: 1, max: 40 }) }),
  );

  it('seat everybody once, in tables that differ by one at most and are as large or as many as was asked', () => {
    fc.assert(
      fc.property(students, by, (all, how) => {
        const tables = makeTables(all, how);
        expect(tables.flatMap((table) => table.students)).toEqual(all);
        expect(areTables(tables)).toBe(true);
        const sizes = tables.map((table) => table.students.length);
        if (all.length === 0) return;
        expect(Math.max(...sizes) - Math.min(...sizes)).toBeLessThanOrEqual(1);
        if ('size' in how) expect(Math.max(...sizes)).toBeLessThanOrEqual(how.size);
        else expect(tables.length).toBe(Math.min(how.count, all.length));
      }),
    );
  });

  it('of four for a class of thirty are eight', () => {
    const all = Array.from({ length: 30 }, (_, i) => `s${i}`);
    expect(makeTables(all, { size: 4 }).map((table) => table.students.length)).toEqual([
      4, 4, 3, 4, 4, 4, 3, 4,
    ]);
  });

  it('keep everybody at one table, whoever is moved where', () => {
    const moves = fc.array(fc.tuple(fc.nat(20), fc.integer({ min: 1, max: 5 })), { maxLength: 20 });
    fc.assert(
      fc.property(moves, (all) => {
        const names = Array.from({ length: 21 }, (_, i) => `s${i}`);
        let tables: StudentTable[] = makeTables(names, { count: 5 });
        for (const [who, where] of all) tables = seatedAt(tables, `s${who}`, String(where));
        expect(tables.flatMap((table) => table.students).sort()).toEqual([...names].sort());
        const last = all.at(-1);
        if (last) expect(tables[last[1] - 1]!.students).toContain(`s${last[0]}`);
      }),
    );
  });

  it('are mixed by chance, each order as likely as any other', () => {
    const counts = new Map<string, number>();
    for (let i = 0; i < 6000; i += 1) {
      const order = shuffled(['a', 'b', 'c']).join('');
      counts.set(order, (counts.get(order) ?? 0) + 1);
    }
    expect(counts.size).toBe(6);
    // Pearson's chi-squared, 5 degrees of freedom: above 30 once in 100,000 times (Abramowitz and Stegun, 26.8, from memory).
    const chi = [...counts.values()].reduce((sum, count) => sum + (count - 1000) ** 2 / 1000, 0);
    expect(chi).toBeLessThan(30);
  });

  it.each([
    ['nothing', null],
    ['a name for a table', ['1']],
    [
      'somebody at two tables',
      [
        { id: '1', students: ['a'] },
        { id: '2', students: ['a'] },
      ],
    ],
    ['somebody twice at one', [{ id: '1', students: ['a', 'a'] }]],
    [
      'two tables of one name',
      [
        { id: '1', students: [] },
        { id: '1', students: [] },
      ],
    ],
    ['more fields', [{ id: '1', students: [], more: 1 }]],
    ['too many', Array.from({ length: 101 }, (_, i) => ({ id: String(i), students: [] }))],
  ])('are not %s', (_, value) => expect(areTables(value)).toBe(false));

  it('and ways are told from anything else', () => {
    expect(areWays({ p1: 'own', p2: 'class' })).toBe(true);
    for (const bad of [null, [], { p1: 'mine' }, { '': 'own' }]) expect(areWays(bad)).toBe(false);
  });
});
