import type { Instrument } from '@doodla/core/instruments';
import { rulerCorners, squareCorners } from '@doodla/core/instruments';
import { insetTriangle } from './insetTriangle';
import { HINGE } from './LegsFace';
import { EDGE_BAND } from './look';
import { discPath } from './ProtractorFace';

/** Of a narrow ruler at least this part can be taken hold of. */
const LEAST_HOLD = 0.4;

/**
 * What of an instrument is taken hold of, as a path in its own plane (even-odd): all but what lies at its edges, where ink
 * begins. `scale` in CSS pixels a page unit.
 */
export function hitPath(instrument: Instrument, scale: number): string {
  const band = EDGE_BAND / scale;
  switch (instrument.kind) {
    case 'ruler': {
      const [[left], [right], [, breadth]] = rulerCorners(instrument);
      const inset = Math.min(band, (breadth * (1 - LEAST_HOLD)) / 2);
      return `M${left} ${inset}H${right}V${breadth - inset}H${left}Z`;
    }
    case 'square45':
    case 'square30':
      return `M${insetTriangle(squareCorners(instrument), band)
        .map((corner) => corner.join(' '))
        .join('L')}Z`;
    case 'protractor':
      return (
        discPath(instrument.radius, instrument.full, 0) + armBand(instrument.arm, instrument.radius, band)
      );
    case 'compasses':
    case 'dividers': {
      const { radius } = instrument;
      return `M${radius / 2} ${-HINGE - 16}L${-band} ${-HINGE * 0.2}H${radius + band}Z`;
    }
  }
}

/** The band along a protractor's arm, within its disc. */
function armBand(arm: number, radius: number, band: number): string {
  const angle = (arm * Math.PI) / 180;
  const [ux, uy] = [Math.cos(angle), -Math.sin(angle)];
  const at = (along: number, aside: number) => `${along * ux - aside * uy} ${along * uy + aside * ux}`;
  const end = Math.sqrt(Math.max(0, radius * radius - band * band)) * 0.98;
  return `M${at(band, -band)}L${at(end, -band)}L${at(end, band)}L${at(band, band)}Z`;
}
