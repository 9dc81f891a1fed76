import type { LineStyle } from '@doodla/core';
import { DASHES } from '@doodla/core';
import { useStore } from '../store/useStore';
import { Choice } from '../ui/Choice';
import { LineOrFilling } from '../ui/LineOrFilling';
import { PercentSlider } from '../ui/PercentSlider';
import { Slider } from '../ui/Slider';
import type { ToolDesk } from './toolWork';
import { t } from '../words';

/** What choosing line and filling needs. */
export type OutlineDesk = Pick<ToolDesk, 'penCase' | 'picking'>;

/** Line and filling of the shapes that are drawn next. */
export function FillingOf({ desk: { penCase, picking } }: { desk: OutlineDesk }) {
  const { outline, fillColour } = useStore(penCase);
  return (
    <LineOrFilling
      style={outline}
      suggestion={fillColour}
      picking={picking}
      fixed={penCase.fixedColour !== undefined}
      onChange={(part) => penCase.patch({ outline: { ...outline, ...part } })}
    />
  );
}

/** Width and dashes of the shapes and lines that are drawn next. */
export function OutlineOf({ desk: { penCase } }: { desk: Pick<OutlineDesk, 'penCase'> }) {
  const { outline } = useStore(penCase);
  const set = (part: Partial<LineStyle>) => penCase.patch({ outline: { ...outline, ...part } });
  return (
    <>
      <Slider
        label={t('common.width')}
        value={outline.width}
        min={1}
        max={30}
        step={0.5}
        onChange={(width) => set({ width })}
      />
      <Choice
        label={t('tools.lineStyle')}
        value={outline.dash}
        columns={3}
        options={DASHES.map((value) => ({
          value,
          name: { solid: t('tools.solid'), dashed: t('tools.dashed'), dotted: t('common.dotted') }[value],
        }))}
        onChange={(dash) => set({ dash })}
      />
      <PercentSlider
        label={t('common.opacity')}
        value={outline.opacity}
        onChange={(opacity) => set({ opacity })}
      />
    </>
  );
}
