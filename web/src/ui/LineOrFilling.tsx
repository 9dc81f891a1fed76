import type { LineStyle } from '@doodla/core';
import { Choice } from './Choice';
import type { Picking } from './ColourChoice';
import { ColourChoice } from './ColourChoice';
import { t } from '../words';

interface LineOrFillingProps {
  style: Pick<LineStyle, 'line' | 'fill'>;
  /** The filling of what had none before. */
  suggestion: string;
  picking: Picking;
  /** Whether there is but one colour to choose. */
  fixed: boolean;
  onChange(part: Partial<LineStyle>): void;
}

/** Whether a shape is drawn by its line, its filling or both, and the filling's own colour beside the line's. */
export function LineOrFilling({
  style: { line, fill },
  suggestion,
  picking,
  fixed,
  onChange,
}: LineOrFillingProps) {
  const use = fill === null ? 'line' : line === null ? 'fill' : 'both';
  const setUse = (value: string) =>
    onChange({
      line: value === 'fill' ? null : (line ?? fill ?? '#000000'),
      fill: value === 'line' ? null : (fill ?? (value === 'fill' ? line : suggestion)),
    });
  return (
    <>
      <Choice
        label={t('ui.lineOrFilling')}
        value={use}
        columns={3}
        options={[
          { value: 'line', name: t('common.line') },
          { value: 'both', name: t('ui.both') },
          { value: 'fill', name: t('ui.filling') },
        ]}
        onChange={setUse}
      />
      {use === 'both' && fill !== null && !fixed && (
        <ColourChoice
          label={t('ui.colourOfTheFilling')}
          colour={fill}
          picking={picking}
          onChange={(colour) => onChange({ fill: colour })}
        />
      )}
    </>
  );
}
