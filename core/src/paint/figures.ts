import type { Measures } from '../marks/measures.js';
import type { PaintItem } from './items.js';

/** A line or shape that shows its measures. */
interface Measured {
  kind: string;
  measures?: Measures;
}

/** How far beside a mark its figures reach at most, page units. */
export const FIGURES_REACH = 48;

let painter: ((mark: never) => PaintItem[]) | undefined;

/** Says how figures are painted; `core/measure` does, which comes when first it is wanted. */
export function registerFigures<M extends Measured>(paint: (mark: M) => PaintItem[]): void {
  painter = paint;
}

export function areFiguresKnown(): boolean {
  return painter !== undefined;
}

export function hasFigures({ measures }: { measures?: Measures }): boolean {
  return measures !== undefined && measures.shown.length > 0;
}

/** The figures beside a line or shape; none until it is known how to paint them. */
export function paintFigures(mark: Measured): PaintItem[] {
  return hasFigures(mark) ? (painter?.(mark as never) ?? []) : [];
}
