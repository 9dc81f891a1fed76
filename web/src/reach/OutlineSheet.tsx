import type { LineStyle } from '@doodla/core';
import { DASHES } from '@doodla/core';
import { Choice } from '../ui/Choice';
import { PercentSlider } from '../ui/PercentSlider';
import { Slider } from '../ui/Slider';

interface OutlineSheetProps {
  style: LineStyle;
  filling: boolean;
  onChange(part: Partial<LineStyle>): void;
}

/** Line, filling, width and dashes of shapes and lines. */
export function OutlineSheet({ style, filling, onChange }: OutlineSheetProps) {
  const colour = style.line ?? style.fill ?? '#000000';
  const use = style.fill === null ? 'line' : style.line === null ? 'fill' : 'both';
  const setUse = (value: string) =>
    onChange({
      line: value === 'fill' ? null : colour,
      fill: value === 'line' ? null : (style.fill ?? lighter(colour)),
    });
  return (
    <>
      {filling && (
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
      )}
      <Slider
        label="Width"
        value={style.width}
        min={1}
        max={30}
        step={0.5}
        onChange={(width) => onChange({ width })}
      />
      <Choice
        label="Line style"
        value={style.dash}
        columns={3}
        options={DASHES.map((value) => ({
          value,
          name: { solid: 'Solid', dashed: 'Dashed', dotted: 'Dotted' }[value],
        }))}
        onChange={(dash) => onChange({ dash })}
      />
      <PercentSlider label="Opacity" value={style.opacity} onChange={(opacity) => onChange({ opacity })} />
    </>
  );
}

/** A pale version of a colour, to fill with. */
function lighter(colour: string): string {
  const part = (at: number) => Math.round(parseInt(colour.slice(at, at + 2), 16) * 0.3 + 255 * 0.7);
  return `#${[1, 3, 5].map((at) => part(at).toString(16).padStart(2, '0')).join('')}`;
}
