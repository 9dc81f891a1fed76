import type { InkStyle } from '@doodla/core';
import { t } from '../../words';

/** What each kind of pen is called. */
export const NATURE_NAMES: Readonly<Record<InkStyle['nature'], string>> = {
  pen: t('tools.pen'),
  pencil: t('tools.pencil'),
  marker: t('tools.marker'),
  chalk: t('tools.chalk'),
  highlighter: t('tools.highlighter'),
};
