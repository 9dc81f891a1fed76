import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Mark, PathMark } from '../src/index.js';
import { copiesOf } from '../src/index.js';
import { aShape, common, LINE_STYLE } from './helpers/marks.js';

const aPath = (id: string, from: string | null, to: string | null): PathMark => ({
  ...common(),
  id,
  kind: 'path',
  course: 'straight',
  points: [0, 0, 50, 50],
  closed: false,
  heads: 'end',
  from: from === null ? null : { mark: from, x: 1, y: 0.5 },
  to: to === null ? null : { mark: to, x: 0, y: 0.5 },
  style: LINE_STYLE,
});

const copied = (marks: readonly Mark[]) => {
  let made = 0;
  return copiesOf(marks, () => `new ${(made += 1)}`);
};

describe('copies of marks', () => {
  it('are joined to copies as their originals are joined to each other, and to nothing else', () => {
    const [, , line] = copied([aShape({ id: 'a' }), aShape({ id: 'b' }), aPath('l', 'b', 'elsewhere')]);
    expect(line).toMatchObject({ from: { mark: 'new 2', x: 1, y: 0.5 }, to: null });
  });

  it('have new ids and the same groups among themselves, and differ in nothing else', () => {
    const name = fc.constantFrom('a', 'b', 'c', 'd');
    const mark = fc
      .tuple(fc.option(name), fc.option(name), fc.option(name), fc.boolean())
      .map(([group, from, to, isPath]) => ({ group, from, to, isPath }));
    fc.assert(
      fc.property(fc.array(mark, { maxLength: 4 }), (made) => {
        const marks = made.map(({ group, from, to, isPath }, i): Mark => {
          const id = 'abcd'[i]!;
          return { ...(isPath ? aPath(id, from, to) : aShape({ id })), group };
        });
        const copies = copied(marks);
        const ids = new Map(marks.map(({ id }, i) => [id, copies[i]!.id]));
        expect(new Set(copies.map(({ id }) => id)).size).toBe(marks.length);
        for (const [i, copy] of copies.entries()) {
          const original = marks[i]!;
          expect(copy.group === null).toBe(original.group === null);
          for (const [j, other] of copies.entries())
            if (copy.group !== null && other.group !== null)
              expect(copy.group === other.group).toBe(original.group === marks[j]!.group);
          const own = { id: original.id, group: original.group };
          const joined = copy.kind === 'path' && original.kind === 'path';
          expect({ ...copy, ...own, ...(joined && { from: original.from, to: original.to }) }).toEqual(
            original,
          );
          if (joined) expect(copy.from?.mark).toBe(original.from ? ids.get(original.from.mark) : undefined);
        }
      }),
    );
  });
});
