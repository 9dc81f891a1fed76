import { generateKeyBetween, generateNKeysBetween } from 'fractional-indexing';

/** Longest fractional index that is taken in or made. */
const MAX_ORDER_LENGTH = 200;
const ALPHABET = /^[0-9A-Za-z]+$/;

interface Ordered {
  order: string;
}

/** Whether a value from outside is a fractional index that others can be made from. */
export function isOrder(value: unknown): value is string {
  if (typeof value !== 'string' || value.length > MAX_ORDER_LENGTH || !ALPHABET.test(value)) return false;
  try {
    generateKeyBetween(value, null);
    return true;
  } catch {
    // The library has no other way to say that a key is none.
    return false;
  }
}

/** A fractional index after all the given ones. */
export function orderOnTop(orders: Iterable<string>): string {
  let top: string | null = null;
  for (const order of orders) if ((top === null || order > top) && isOrder(order)) top = order;
  return makeOrders(top, null, 1)[0]!;
}

/** A fractional index for something that goes before `sorted[at]`, or to the end. */
export function orderAt(sorted: readonly Ordered[], at: number): string {
  return ordersAt(sorted, at, 1)[0]!;
}

/**
 * `count` fractional indices in a row for things that go before `sorted[at]`, or to the end. Nothing
 * fits between two that share an index, as two clients can make at once, so they go after both.
 */
export function ordersAt(sorted: readonly Ordered[], at: number, count: number): string[] {
  const before = sorted.slice(0, Math.max(0, at)).findLast(({ order }) => isOrder(order));
  const low = before?.order ?? null;
  const after = sorted
    .slice(Math.max(0, at))
    .find(({ order }) => isOrder(order) && (low === null || order > low));
  return makeOrders(low, after?.order ?? null, count);
}

/** An index that has grown too long would be refused everywhere; sharing a neighbour's is the next best. */
function makeOrders(low: string | null, high: string | null, count: number): string[] {
  return generateNKeysBetween(low, high, count).map((order) =>
    order.length <= MAX_ORDER_LENGTH ? order : (low ?? high ?? order),
  );
}
