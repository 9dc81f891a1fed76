import type { Form, Lack, Mark, MarkName, ReadingPart, StampName } from '@doodla/core';
import { describeMark } from '@doodla/core';
import { t } from '.';

export const FORM_NAMES: Readonly<Record<Form, string>> = {
  rectangle: t('tools.rectangle'),
  rounded: t('tools.roundedRectangle'),
  ellipse: t('tools.ellipse'),
  triangle: t('tools.triangle'),
  rightTriangle: t('tools.rightTriangle'),
  parallelogram: t('tools.parallelogram'),
  trapezium: t('tools.trapezium'),
  polygon: t('tools.regularPolygon'),
  star: t('tools.star'),
  bracket: t('tools.bracket'),
  balloon: t('tools.speechBalloon'),
  cloud: t('shapes.cloud'),
};

export const STAMP_NAMES: Readonly<Record<StampName, string>> = {
  tick: t('tools.tick'),
  cross: t('tools.cross'),
  question: t('tools.questionMark'),
  star: t('tools.star'),
  heart: t('tools.heart'),
  smile: t('tools.smile'),
  arrow: t('tools.arrow'),
  number: t('tools.countingNumber'),
};

const NAMES: Readonly<Record<MarkName, string>> = {
  fill: t('marks.fill'),
  formula: t('formulas.formula'),
  plot: t('plots.diagram'),
  highlight: t('marks.highlight'),
  ink: t('marks.ink'),
  note: t('tools.note'),
  patch: t('tools.patchOverAnAnswer'),
  path: t('marks.path'),
  picture: t('marks.picture'),
  quote: t('marks.quote'),
  shape: t('tools.shape'),
  stamp: t('tools.stamp'),
  text: t('tools.text'),
};

/** What a sort of marks is called. */
export const sayMarkName = (name: MarkName): string => NAMES[name];

/** What a mark is, in words: its kind, and what is known of its content. */
export function sayMark(mark: Mark): string {
  const { name, content } = describeMark(mark);
  const what = NAMES[name];
  if (content === undefined) return what;
  return t('marks.withContent', { what, content: mark.alt ?? contentOf(mark, content) });
}

function contentOf(mark: Mark, content: string): string {
  if (mark.kind === 'shape') return FORM_NAMES[mark.form].toLocaleLowerCase();
  if (mark.kind === 'stamp' && mark.stamp !== 'number') return STAMP_NAMES[mark.stamp].toLocaleLowerCase();
  return content === '' ? t('marks.empty') : content;
}

/** What a mark on a page that is read out is, and to which words it was made. */
export function sayPart({ mark, touched }: Extract<ReadingPart, { kind: 'mark' }>): string {
  return touched ? t(`marks.${touched.act}`, { words: touched.words }) : sayMark(mark);
}

/** What is missing for those who cannot see well, and what to do. */
export function sayLack(lack: Lack): string {
  if (lack.what !== 'contrast') return t(lack.what === 'small' ? 'marks.textIsSmall' : 'marks.noDescription');
  const ratio = Math.round(lack.ratio * 10) / 10;
  return t(lack.better === 'darker' ? 'marks.makeItDarker' : 'marks.makeItLighter', { ratio });
}
