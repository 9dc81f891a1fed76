/** Numbers that are the same for the same seed: mulberry32 (public domain, T. Ettinger). */
export function seeded(seed) {
  let state = seed >>> 0;
  const next = () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  const between = (low, high) => low + (high - low) * next();
  return {
    next,
    between,
    whole: (low, high) => Math.floor(between(low, high + 1)),
    chance: (part) => next() < part,
    pick: (list) => list[Math.floor(next() * list.length)],
    /** Box and Muller 1958. */
    normal: (spread) => spread * Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next()),
  };
}
