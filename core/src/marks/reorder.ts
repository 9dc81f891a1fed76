import { ordersAt } from '../ops/order.js';
import { byOrder } from '../pages/page.js';
import type { Mark } from './mark.js';

/** New orders of some marks of a page, both lowest first, that go to an end of the pile or past the next mark. */
export function reorderedTo(
  chosen: readonly Mark[],
  all: readonly Mark[],
  to: 'front' | 'back' | 'up' | 'down',
): string[] {
  const ids = new Set(chosen.map(({ id }) => id));
  const rest = all.filter(({ id }) => !ids.has(id));
  const edge = to === 'front' || to === 'up' ? chosen.at(-1) : chosen[0];
  if (!edge) return [];
  const below = rest.filter((mark) => byOrder(mark, edge) < 0).length;
  const places = {
    front: rest.length,
    back: 0,
    up: Math.min(rest.length, below + 1),
    down: Math.max(0, below - 1),
  };
  return ordersAt(rest, places[to], chosen.length);
}
