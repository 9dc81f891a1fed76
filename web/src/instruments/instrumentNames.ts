import type { InstrumentKind } from '@doodla/core/instruments';
import { t } from '../words';

/** What instruments are called. */
export const INSTRUMENT_NAMES: Readonly<Record<InstrumentKind, string>> = {
  ruler: t('instruments.ruler'),
  square45: t('instruments.square45'),
  square30: t('instruments.square30'),
  protractor: t('instruments.protractor'),
  compasses: t('instruments.compasses'),
  dividers: t('instruments.dividers'),
};
