/** Andika is made for early readers; the others are a serif, a typewriter and a handwriting. */
export const FONTS = ['andika', 'serif', 'mono', 'hand'] as const;
export type FontId = (typeof FONTS)[number];
