import { useStore } from '../../store/useStore';
import { Slider } from '../../ui/Slider';
import type { ToolDesk } from '../toolWork';
import { t } from '../../words';

/** What can be chosen for pouring. */
export default function FillSheet({ desk: { penCase } }: { desk: Pick<ToolDesk, 'penCase'> }) {
  const { fillGap } = useStore(penCase);
  return (
    <Slider
      label={t('tools.closeGapsUpTo')}
      value={fillGap}
      min={0}
      max={40}
      step={1}
      onChange={(gap) => penCase.patch({ fillGap: gap })}
    />
  );
}
