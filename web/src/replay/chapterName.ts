import type { Page } from '@doodla/core';
import type { Turn } from '@doodla/core/replay';
import { t } from '../words';

/** What a chapter is called: as somebody named it, else as its page is, else by its number. */
export function chapterName({ page, name }: Pick<Turn, 'page' | 'name'>, pages: readonly Page[]): string {
  const number = pages.findIndex(({ id }) => id === page) + 1;
  return name || pages[number - 1]?.title || t('common.page', { number });
}
