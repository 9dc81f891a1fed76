import type { Gauge } from '../marks/measures.js';
import { UNITS_PER_MM } from '../pages/page.js';
import type { EdgeUnit } from './instrument.js';

/** A mark of a scale. */
export interface ScaleMark {
  /** From zero, page units. */
  at: number;
  /** How long it is: 0 the shortest, 3 the longest. */
  level: 0 | 1 | 2 | 3;
  label?: string;
}

/** How a scale goes: its smallest step, and how many of them each longer mark takes. */
interface Division {
  /** Page units. */
  step: number;
  /** Steps to a mark of levels 1, 2 and 3. */
  every: readonly [number, number, number];
  /** What is written at marks of level 3, by their number. */
  label(count: number): string;
}

/** Marks of a scale of one's own are at least so far apart, page units. */
const LEAST_APART = 3.5;
const UNITS_PER_INCH = 96;

/** The marks of a scale from zero on; `gauge` is the page's own. */
export function scaleMarks(unit: EdgeUnit, length: number, gauge: Gauge): ScaleMark[] {
  const { step, every, label } = divisionOf(unit, gauge);
  const [half, large, whole] = every;
  return Array.from({ length: Math.floor(length / step + 1e-9) + 1 }, (_, n): ScaleMark => {
    const at = n * step;
    if (n % whole === 0) return { at, level: 3, label: label(n / whole) };
    return { at, level: n % large === 0 ? 2 : n % half === 0 ? 1 : 0 };
  });
}

/** Page units from one mark of a scale to the next. */
export function stepOf(unit: EdgeUnit, gauge: Gauge): number {
  return divisionOf(unit, gauge).step;
}

/** 1 mm is 96 / 25.4 page units, 1 inch is 96; inches are halved down to sixteenths. */
function divisionOf(unit: EdgeUnit, gauge: Gauge): Division {
  switch (unit) {
    case 'mm':
      return { step: UNITS_PER_MM, every: [5, 5, 10], label: (count) => String(count * 10) };
    case 'cm':
      return { step: UNITS_PER_MM, every: [5, 5, 10], label: String };
    case 'inch':
      return { step: UNITS_PER_INCH / 16, every: [2, 4, 16], label: String };
    case 'page':
      return ownDivision(gauge);
  }
}

/** Steps of 1, 2 or 5 times a power of ten of the unit, ten of them to a number. */
function ownDivision({ per, comma }: Gauge): Division {
  const least = LEAST_APART / per;
  const ten = 10 ** Math.floor(Math.log10(least));
  const units = [1, 2, 5, 10].map((times) => times * ten).find((each) => each >= least * (1 - 1e-9))!;
  const decimals = Math.max(0, -Math.floor(Math.log10(units * 10) + 1e-9));
  return {
    step: units * per,
    every: [5, 5, 10],
    label: (count) => {
      const text = (count * units * 10).toFixed(decimals);
      return comma ? text.replace('.', ',') : text;
    },
  };
}
