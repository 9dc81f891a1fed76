import type { Gauge } from '../marks/measures.js';

/** Most decimals of an angle. */
const ANGLE_DECIMALS = 1;
/** An angle that is so near a right one is shown as a square, degrees. */
const RIGHT = 0.05;

/** A length in page units as it is written, with its unit. */
export function saidLength(length: number, gauge: Gauge): string {
  return `${number(length / gauge.per, gauge.decimals, gauge.comma)} ${gauge.unit}`;
}

/** An area in square page units, with its unit. */
export function saidArea(area: number, gauge: Gauge): string {
  return `${number(area / gauge.per ** 2, gauge.decimals, gauge.comma)} ${gauge.unit}²`;
}

export function saidAngle(degrees: number, { decimals, comma }: Gauge): string {
  return `${number(degrees, Math.min(decimals, ANGLE_DECIMALS), comma)}°`;
}

export function isRight(degrees: number): boolean {
  return Math.abs(degrees - 90) < RIGHT;
}

function number(value: number, decimals: number, comma: boolean): string {
  const text = value.toFixed(decimals);
  return comma ? text.replace('.', ',') : text;
}
