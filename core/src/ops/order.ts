import { generateKeyBetween, generateNKeysBetween } from 'fractional-indexing';

/** A fractional index after all the given ones. */
export function orderOnTop(orders: Iterable<string>): string {
  let top: string | null = null;
  for (const order of orders) if (top === null || order > top) top = order;
  return generateKeyBetween(top, null);
}

/** `count` fractional indices in a row, to lay out a new sequence, or to fit one between two others. */
export function orderSequence(
  count: number,
  low: string | null = null,
  high: string | null = null,
): string[] {
  return generateNKeysBetween(low, high, count);
}

/** A fractional index between two others; null stands for below or above all. */
export function orderBetween(low: string | null, high: string | null): string {
  return generateKeyBetween(low, high);
}
