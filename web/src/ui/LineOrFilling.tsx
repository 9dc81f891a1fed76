import type { LineStyle } from '@doodla/core';
import { Choice } from './Choice';
import type { Picking } from './ColourChoice';
import { ColourChoice } from './ColourChoice';

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
        label="Line or filling"
        value={use}
        columns={3}
        options={[
          { value: 'line', name: 'Line' },
          { value: 'both', name: 'Both' },
          { value: 'fill', name: 'Filling' },
        ]}
        onChange={setUse}
      />
      {use === 'both' && fill !== null && !fixed && (
        <ColourChoice
          label="Colour of the filling"
          colour={fill}
          picking={picking}
          onChange={(colour) => onChange({ fill: colour })}
        />
      )}
    </>
  );
}
