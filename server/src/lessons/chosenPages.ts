import { Problem } from '../http/problem.js';

/** Indices from 0 of the pages that a list such as `1-3,7` names; all where there is none. Throws Problem. */
export function chosenPages(list: string | undefined, count: number): number[] {
  const all = Array.from({ length: count }, (_, i) => i);
  if (list === undefined || list.trim() === '') return all;
  const chosen = list.split(',').flatMap((part) => {
    const match = /^\s*(\d{1,5})(?:\s*-\s*(\d{1,5}))?\s*$/.exec(part);
    const [from, to] = [Number(match?.[1]), Number(match?.[2] ?? match?.[1])];
    return match && from >= 1 && to >= from && to <= count ? all.slice(from - 1, to) : [-1];
  });
  if (!chosen.includes(-1)) return chosen;
  throw new Problem(
    422,
    'no-such-pages',
    `This document has ${count} pages. Please name those to take like this: 1-3, 7.`,
  );
}
