import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isOrder, orderedPages, orderOnTop, orderAt, ordersAt } from '../src/index.js';
import { aPage } from './helpers/marks.js';

describe('order', () => {
  it('puts new marks above all others, and pages in a row', () => {
    const orders = ordersAt([], 0, 300);
    expect([...orders].sort()).toEqual(orders);
    expect(orderOnTop(orders) > orders.at(-1)!).toBe(true);
    expect(orderOnTop([]).length).toBeGreaterThan(0);
    const pages = [
      aPage({ id: 'b', order: 'a1' }),
      aPage({ id: 'a', order: 'a1' }),
      aPage({ id: 'c', order: 'a0' }),
      aPage({ id: 'd', removed: true }),
    ];
    expect(orderedPages(pages).map(({ id }) => id)).toEqual(['c', 'a', 'b']);
  });

  it('goes on where two clients have made the same key, and where one is nonsense', () => {
    const twins = [{ order: 'a1' }, { order: 'a1' }, { order: 'a3' }];
    const between = orderAt(twins, 1);
    expect(between > 'a1' && between < 'a3').toBe(true);
    expect(orderAt([{ order: 'zz' }, { order: 'a1' }], 2) > 'a1').toBe(true);
    expect(orderOnTop(['a1', 'zz'])).toBe('a2');
  });

  it.each(['zz', 'a', '', 'a0 ', 'A00000000000000000000000000', 'a0'.padEnd(300, 'V'), 'a10', 7, null])(
    'takes %j for no key',
    (key) => expect(isOrder(key)).toBe(false),
  );

  it('never makes a key that would be refused, however far others have gone', () => {
    const far = `z${'z'.repeat(26)}${'V'.repeat(170)}`;
    expect(isOrder(far)).toBe(true);
    let top = far;
    for (let i = 0; i < 400; i++) {
      top = orderOnTop([top]);
      expect(isOrder(top)).toBe(true);
    }
  });

  it('keeps any sequence of insertions in the order they were put', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(1000), { maxLength: 120 }), (places) => {
        const list: { order: string; name: number }[] = [];
        places.forEach((place, name) => {
          const at = place % (list.length + 1);
          list.splice(at, 0, { order: orderAt(list, at), name });
        });
        const sorted = [...list].sort((a, b) => (a.order < b.order ? -1 : 1));
        expect(sorted.map(({ name }) => name)).toEqual(list.map(({ name }) => name));
      }),
    );
  });
});
