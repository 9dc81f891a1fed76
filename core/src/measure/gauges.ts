import type { Gauge } from '../marks/measures.js';
import type { Page } from '../pages/page.js';
import { UNITS_PER_MM } from '../pages/page.js';

export const UNITS = ['mm', 'cm', 'inch', 'squares'] as const;
export type Unit = (typeof UNITS)[number];

/** As it is written beside a number. */
const SIGNS: Record<Unit, string> = { mm: 'mm', cm: 'cm', inch: 'in', squares: 'u' };
/** Decimals that say no more than a hand can draw. */
const DECIMALS: Record<Unit, number> = { mm: 0, cm: 1, inch: 2, squares: 1 };
/** Squares where a page has none, millimetres. */
const USUAL_SQUARE = 5;

/** A usual unit on a page: 1 inch is 96 page units and 25.4 mm. */
export function gaugeOf(unit: Unit, page: Pick<Page, 'surface'> | undefined, comma: boolean): Gauge {
  const surface = page?.surface;
  const square = surface?.kind === 'blank' && surface.ruling !== 'plain' ? surface.spacing : USUAL_SQUARE;
  const mm = { mm: 1, cm: 10, inch: 25.4, squares: square }[unit];
  return { unit: SIGNS[unit], per: mm * UNITS_PER_MM, decimals: DECIMALS[unit], comma };
}

/** Which usual unit a gauge is, or undefined for a page's own scale. */
export function unitOf(gauge: Gauge, page: Pick<Page, 'surface'> | undefined): Unit | undefined {
  return UNITS.find((unit) => {
    const usual = gaugeOf(unit, page, gauge.comma);
    return usual.unit === gauge.unit && Math.abs(usual.per - gauge.per) < 1e-9 * usual.per;
  });
}

/** The scale in which a stretch of so many page units is so long. */
export function ownGauge(stretch: number, length: number, unit: string, { decimals, comma }: Gauge): Gauge {
  return { unit, per: stretch / length, decimals, comma };
}
