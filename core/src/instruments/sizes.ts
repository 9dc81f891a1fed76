import type { Point } from '../measure/outline.js';
import type { Compasses, Dividers, Instrument, Protractor, Ruler, SetSquare } from './instrument.js';
import { SIZES } from './instrument.js';
import { directionOf, fullTurn, onInstrument } from './place.js';

const within = ({ least, most }: { least: number; most: number }, value: number) =>
  Math.min(most, Math.max(least, value));

/** Of another length, page units, as far as there is one. */
export function withLength<I extends Ruler | SetSquare>(instrument: I, length: number): I {
  return { ...instrument, length: within(instrument.kind === 'ruler' ? SIZES.ruler : SIZES.square, length) };
}

/** Of another radius or opening, page units, as far as there is one. */
export function withRadius<I extends Protractor | Compasses | Dividers>(instrument: I, radius: number): I {
  return {
    ...instrument,
    radius: within(instrument.kind === 'protractor' ? SIZES.protractor : SIZES.opening, radius),
  };
}

/** Compasses or dividers whose other end is put to a point of the page, as far as they open. */
export function openedTo<I extends Compasses | Dividers>(instrument: I, to: Point): I {
  const { x, y } = instrument;
  const opened = withRadius(instrument, Math.hypot(to[0] - x, to[1] - y));
  return { ...opened, turn: directionOf([x, y], to) };
}

/** A protractor whose arm points to a point of the page, at whole degrees; a half one's as far as its scale goes. */
export function armTo(protractor: Protractor, to: Point): Protractor {
  const [x, y] = onInstrument(protractor, to);
  const angle = fullTurn(Math.round((Math.atan2(-y, x) * 180) / Math.PI));
  if (protractor.full || angle <= 180) return { ...protractor, arm: angle };
  return { ...protractor, arm: angle < 270 ? 180 : 0 };
}

/** Whether an instrument of a kind can be so large. */
export function isPossible(kind: Instrument['kind'], size: number): boolean {
  const limits =
    kind === 'ruler'
      ? SIZES.ruler
      : kind === 'protractor'
        ? SIZES.protractor
        : kind === 'compasses' || kind === 'dividers'
          ? SIZES.opening
          : SIZES.square;
  return size >= limits.least * (1 - 1e-9) && size <= limits.most * (1 + 1e-9);
}
