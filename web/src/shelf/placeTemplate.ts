import type { TemplateId, TemplateWords } from '@doodla/core';
import { byOrder, ordersAt, templateOn } from '@doodla/core';
import { nanoid } from 'nanoid';
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

type Placing = Pick<PageDesk, 'extentOf' | 'layers' | 'newMark' | 'page' | 'target'>;

/** Puts a template on the shown page, as one step and one group. Returns the step; undefined where it may not be. */
export function placeTemplate(desk: Placing, id: TemplateId): string | undefined {
  const { page } = desk;
  const common = desk.newMark();
  if (!page || !common) return undefined;
  const parts = templateOn(id, desk.extentOf(page), templateWords());
  const there = [...desk.layers.at(-1)!.on(page.id).all()].sort(byOrder);
  const orders = ordersAt(there, there.length, parts.length);
  const group = nanoid();
  return desk.target.perform(
    parts.map((part, i) => ({
      do: 'add',
      mark: { ...common, ...part, id: nanoid(), order: orders[i]!, group },
    })),
  );
}
