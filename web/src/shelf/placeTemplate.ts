import type { TemplateId, TemplateWords } from '@doodla/core';
import { templateOn } from '@doodla/core';
import { asGroup } from '../desk/asGroup';
import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';
import { weekdays } from '../words/dates';

/** The words of templates in the language that is spoken here. */
export const templateWords = (): TemplateWords => ({
  topic: t('templates.topic'),
  ideas: t('templates.ourIdeas'),
  know: t('templates.whatWeKnow'),
  want: t('templates.whatWeWantToKnow'),
  learned: t('templates.whatWeLearned'),
  one: t('templates.one'),
  both: t('templates.both'),
  other: t('templates.other'),
  forIt: t('templates.forIt'),
  againstIt: t('templates.againstIt'),
  days: weekdays(),
  wentWell: t('templates.wentWell'),
  wasHard: t('templates.wasHard'),
  surprised: t('templates.surprisedUs'),
  nextTime: t('templates.nextTime'),
  compared: t('templates.whatIsCompared'),
});

type Placing = Pick<PageDesk, 'extentOf' | 'newMark' | 'page' | 'target'>;

/** Puts a template on the shown page, as one step and one group. Returns the step; undefined where it may not be. */
export function placeTemplate(desk: Placing, id: TemplateId): string | undefined {
  const { page } = desk;
  const common = desk.newMark();
  if (!page || !common) return undefined;
  const parts = templateOn(id, desk.extentOf(page), templateWords());
  return desk.target.perform(asGroup(common, parts).map((mark) => ({ do: 'add', mark })));
}
