import type { LineStyle } from '@doodla/core';
import { DASHES } from '@doodla/core';
import { Choice } from '../ui/Choice';
import { PercentSlider } from '../ui/PercentSlider';
import { Slider } from '../ui/Slider';

interface OutlineSheetProps {
  style: LineStyle;
  onChange(part: Partial<LineStyle>): void;
}

/** Width and dashes of shapes and lines. */
export function OutlineSheet({ style, onChange }: OutlineSheetProps) {
  return (
    <>
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
