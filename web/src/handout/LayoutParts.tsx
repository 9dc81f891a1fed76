import type { PerSheet } from '@doodla/core/handout';
import { SelectField } from '../ui/SelectField';
import { Tick } from '../ui/Tick';
import { t } from '../words';
import type { HandoutChoice, Scale } from './handoutOrder';
import { hasFoot, hasSheets, SCALES } from './handoutOrder';

interface LayoutPartsProps {
  choice: HandoutChoice;
  change(set: Partial<HandoutChoice>): void;
}

const SHEETS: readonly (1 | PerSheet)[] = [1, 2, 4, 6, 8];
const sizeNames: Readonly<Record<Scale, string>> = {
  1: t('handout.sizeScreen'),
  2: t('handout.sizePrint'),
  3: t('handout.sizePoster'),
};

/** What stands on each page beside what is written on it, and how pages lie on sheets. */
export function LayoutParts({ choice, change }: LayoutPartsProps) {
  const { format, foot } = choice;
  const changeFoot = (set: Partial<HandoutChoice['foot']>) => change({ foot: { ...foot, ...set } });
  return (
    <>
      {hasFoot(format) && (
        <fieldset className="mb-2">
          <legend className="font-bold">{t('handout.atTheFoot')}</legend>
          <div className="flex flex-wrap gap-x-6 *:mb-1">
            <Tick checked={foot.title} onChange={(title) => changeFoot({ title })}>
              {t('handout.title')}
            </Tick>
            <Tick checked={foot.date} onChange={(date) => changeFoot({ date })}>
              {t('handout.date')}
            </Tick>
            <Tick checked={foot.numbers} onChange={(numbers) => changeFoot({ numbers })}>
              {t('handout.pageNumbers')}
            </Tick>
          </div>
        </fieldset>
      )}
      {hasSheets(format) && (
        <SelectField
          label={t('handout.perSheet')}
          value={choice.perSheet}
          options={SHEETS.map((value) => ({ value, name: t('handout.onePageEach', { count: value }) }))}
          onChange={(perSheet) => change({ perSheet })}
        />
      )}
      {(format === 'png' || format === 'webp') && (
        <SelectField
          label={t('handout.size')}
          value={choice.scale}
          options={SCALES.map((value) => ({ value, name: sizeNames[value] }))}
          onChange={(scale) => change({ scale })}
        />
      )}
    </>
  );
}
