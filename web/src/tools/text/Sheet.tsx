import { ChartColumn, ChartSpline, Network, Shapes, Sigma } from 'lucide-react';
import { useStore } from '../../store/useStore';
import { Button } from '../../ui/Button';
import { Switch } from '../../ui/Switch';
import { TextSheet } from '../../ui/TextSheet';
import type { ToolDesk } from '../toolWork';
import { t } from '../../words';

/** What can be chosen for typed text. */
export default function TextToolSheet({
  desk: { penCase, formulaEdit, plotEdit },
}: {
  desk: Pick<ToolDesk, 'formulaEdit' | 'penCase' | 'plotEdit'>;
}) {
  const { text, screenKeyboard } = useStore(penCase);
  return (
    <>
      <TextSheet style={text} onChange={(part) => penCase.patch({ text: { ...text, ...part } })} />
      <Switch
        label={t('tools.keyboardOnTheScreen')}
        checked={screenKeyboard}
        onChange={(on) => penCase.patch({ screenKeyboard: on })}
      />
      <Button look="onBoard" icon={<Sigma aria-hidden size={20} />} onClick={() => formulaEdit.set({})}>
        {t('formulas.formula')}
      </Button>
      <Button
        look="onBoard"
        icon={<ChartSpline aria-hidden size={20} />}
        onClick={() => plotEdit.set({ is: 'plot' })}
      >
        {t('plots.graph')}
      </Button>
      <Button
        look="onBoard"
        icon={<ChartColumn aria-hidden size={20} />}
        onClick={() => plotEdit.set({ is: 'chart' })}
      >
        {t('charts.chart')}
      </Button>
      <Button
        look="onBoard"
        icon={<Shapes aria-hidden size={20} />}
        onClick={() => plotEdit.set({ is: 'figure' })}
      >
        {t('figures.title')}
      </Button>
      <Button
        look="onBoard"
        icon={<Network aria-hidden size={20} />}
        onClick={() => plotEdit.set({ is: 'ideaMap' })}
      >
        {t('ideaMap.title')}
      </Button>
    </>
  );
}
