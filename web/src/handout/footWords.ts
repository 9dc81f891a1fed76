import { t } from '../words';
import { dayOf } from '../words/dates';
import type { HandoutChoice } from './handoutOrder';

/** What stands at the foot of each page; undefined where nothing does. */
export function footWords({ foot }: HandoutChoice, title: string, at: number): string | undefined {
  const parts = [
    ...(foot.title ? [title] : []),
    ...(foot.date ? [dayOf(at)] : []),
    ...(foot.numbers ? [t('handout.pageOf', { page: '{page}', pages: '{pages}' })] : []),
  ];
  return parts.length === 0 ? undefined : parts.join('  ·  ');
}
