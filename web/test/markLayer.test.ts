import type { Mark } from '@doodla/core';
import { markBounds } from '@doodla/core';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { MarkLayer } from '../src/desk/markLayer';
import { anyMark } from '../../core/test/helpers/anyMark';

const PAGES = ['p1', 'p2', 'p3'];
const placed = fc
  .tuple(anyMark('stroke'), fc.constantFrom(...PAGES), fc.nat(12))
  .map(([mark, page, id]) => ({ ...mark, page, id: `m${id}` }));
const step = fc.oneof(
  fc.record({ do: fc.constant('put' as const), mark: placed }),
  fc.record({ do: fc.constant('take' as const), id: fc.nat(12).map((id) => `m${id}`) }),
  fc.record({ do: fc.constant('arrive' as const), page: fc.constantFrom(...PAGES), marks: fc.array(placed) }),
);

/** A log of which only its marks are asked. */
function aLog(isShown: (mark: Mark) => boolean = () => true) {
  const marks = new Map<string, Mark>();
  const state = { marks, pages: new Map() };
  return { marks, layer: new MarkLayer({ state }, isShown) };
}

describe('the marks of a page', () => {
  it('are those of the log, whatever was put, taken, moved to another page or has arrived', () => {
    fc.assert(
      fc.property(fc.array(step, { maxLength: 30 }), (steps) => {
        const { marks, layer } = aLog();
        for (const page of PAGES.slice(0, 2)) layer.on(page);
        for (const one of steps) {
          if (one.do === 'put') {
            marks.set(one.mark.id, one.mark);
            layer.update({ marks: new Set([one.mark.id]), pages: new Set() });
          } else if (one.do === 'take') {
            marks.delete(one.id);
            layer.update({ marks: new Set([one.id]), pages: new Set() });
          } else {
            // A page arrives as a whole, without a word of its single marks.
            for (const mark of one.marks)
              if (!marks.has(mark.id)) marks.set(mark.id, { ...mark, page: one.page });
            layer.update({ marks: new Set(), pages: new Set(), arrived: one.page });
          }
        }
        const sorted = (list: Iterable<Mark>) => [...list].map(({ id }) => id).sort();
        for (const page of PAGES)
          expect(sorted(layer.on(page).all())).toEqual(
            sorted([...marks.values()].filter((mark) => mark.page === page)),
          );
      }),
    );
  });

  it('say where they were and where they are, to be drawn anew there alone', () => {
    fc.assert(
      fc.property(placed, placed, (before, moved) => {
        const { marks, layer } = aLog();
        const after = { ...moved, id: before.id, page: before.page };
        marks.set(before.id, before);
        layer.on(before.page);
        marks.set(after.id, after);
        const stale = layer.update({ marks: new Set([after.id]), pages: new Set() }).get(before.page)!;
        for (const bounds of [markBounds(before), markBounds(after)])
          expect(
            stale.some(
              ({ x, y, width, height }) =>
                x <= bounds.x &&
                y <= bounds.y &&
                x + width >= bounds.x + bounds.width &&
                y + height >= bounds.y + bounds.height,
            ),
          ).toBe(true);
      }),
    );
  });
});
