import type { ShapeKind } from '../../src/neaten/reading.js';

export const KINDS: readonly ShapeKind[];

/** Rough drawings of all kinds by turns: which kind was meant, and the strokes. */
export function roughShapes(count: number, seed: number): { kind: ShapeKind; strokes: number[][] }[];
