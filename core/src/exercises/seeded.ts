/** Numbers from 0 up to 1 that follow from a seed, the same on every machine (mulberry32, Tommy Ettinger 2017, public domain). */
export function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32;
  };
}

/** The same in an order by chance, each as likely as any other (Fisher and Yates; Knuth, TAOCP volume 2, algorithm 3.4.2P). */
export function shuffled<T>(items: readonly T[], chance: () => number): T[] {
  const all = [...items];
  for (let last = all.length - 1; last > 0; last--) {
    const other = Math.floor(chance() * (last + 1));
    [all[last], all[other]] = [all[other]!, all[last]!];
  }
  return all;
}

/** The same in another order than they have, where there is one. */
export function mixedUp<T>(items: readonly T[], chance: () => number): T[] {
  if (new Set(items).size < 2) return [...items];
  for (;;) {
    const all = shuffled(items, chance);
    if (all.some((item, i) => item !== items[i])) return all;
  }
}
