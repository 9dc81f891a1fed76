import type { Random } from './random.mjs';

/** The TeX of a formula as it is written in schools. */
export function schoolFormula(random: Random): string;
