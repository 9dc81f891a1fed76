import type { Nature } from '../marks/stroke/strokeMark.js';

/** Natures whose line grows broad when the pen is laid down, as those of real ones do. */
const BROAD: ReadonlySet<Nature> = new Set(['pencil', 'chalk', 'marker']);
/** A pen held like this for writing does not count as laid down, degrees from upright. */
const WRITING_TILT = 35;
const MOST_TILT = 75;
/** Pressure that a pen laid down as far as it goes adds. */
const BROADENING = 0.6;

/**
 * How far a pen is tilted from upright, degrees 0 to 90, from its tilts along x and y (Pointer Events
 * Level 3, "Converting between tiltX / tiltY and altitudeAngle / azimuthAngle").
 */
export function tiltFromUpright(tiltX: number, tiltY: number): number {
  const along = (degrees: number) => Math.tan((Math.min(89.9, Math.abs(degrees)) * Math.PI) / 180);
  return (Math.atan(Math.hypot(along(tiltX), along(tiltY))) * 180) / Math.PI;
}

/** The pressure that a stroke is drawn with, 0 to 1: a pencil, chalk or marker laid down draws broader. */
export function pressureWithTilt(nature: Nature, pressure: number, tilt: number): number {
  if (!BROAD.has(nature)) return pressure;
  const share = Math.min(1, Math.max(0, (tilt - WRITING_TILT) / (MOST_TILT - WRITING_TILT)));
  return Math.min(1, pressure + BROADENING * share);
}
