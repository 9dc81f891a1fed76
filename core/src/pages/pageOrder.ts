import { ordersAt } from '../ops/order.js';
import type { Page } from './page.js';
import { byOrder } from './page.js';

/**
 * Orders for new pages before or after one, or at the end where it is not there. `pages` are all of a log, removed ones
 * too: they keep their place, so that they come back to it.
 */
export function ordersBeside(
  pages: Iterable<Page>,
  beside: string | undefined,
  { where = 'after', count = 1 }: { where?: 'before' | 'after'; count?: number } = {},
): string[] {
  const all = [...pages].sort(byOrder);
  const at = all.findIndex(({ id }) => id === beside);
  const place = at < 0 ? all.length : where === 'after' ? at + 1 : at;
  return ordersAt(all, place, count);
}
