import { curvesOfRing } from '../../paint/fewerCurves.js';
import type { AsciiWriter } from './asciiWriter.js';

/** Farthest that a curve may lie from the one on the screen, page units: as fine as places are written. */
export const TOLERANCE = 0.1;

/** A tenth of a page unit is the least that is told apart: 26 µm on paper, less than a dot of a printer of 600 to the inch. */
export const inTenths = (value: number) => Math.round(value * 10);

/**
 * Fills the smooth ring of ink's corners (`outlineCorners`), by path operators (ISO 32000-1 §8.5.2). It is written in a
 * frame of its own whose unit is a tenth of a page unit and whose origin is where the ink begins, so that its places are
 * short whole numbers: they take half the room of others.
 */
export function fillInk(content: AsciiWriter, ring: readonly (readonly number[])[]): void {
  if (ring.length < 3) return;
  const [[x0, y0], [x1, y1]] = ring as unknown as [[number, number], [number, number]];
  const [startX, startY] = [(x0 + x1) / 2, (y0 + y1) / 2];
  const [x, y] = [Math.round(startX), Math.round(startY)];
  content.text(`q\n0.1 0 0 0.1 ${x} ${y} cm\n`);
  content.pair(inTenths(startX - x), inTenths(startY - y));
  content.text('m');
  const curves = curvesOfRing(ring, TOLERANCE);
  for (let i = 0; i < curves.length; i += 6) {
    content.text('\n');
    for (let at = i; at < i + 6; at += 2)
      content.pair(inTenths(curves[at]! - x), inTenths(curves[at + 1]! - y));
    content.text('c');
  }
  content.text('\nh\nf\nQ\n');
}
