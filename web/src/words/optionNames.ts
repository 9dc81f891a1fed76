import type { Poll } from '@doodla/core';
import { t } from './index';

const LETTERS = 'ABCDEFGH';

/** What the options of a poll are called. */
export function optionNames({ kind, options }: Pick<Poll, 'kind' | 'options'>): string[] {
  if (kind === 'yes-no') return [t('asking.yes'), t('asking.no')];
  if (kind === 'letters') return options.map((_, i) => LETTERS[i]!);
  return [...options];
}
