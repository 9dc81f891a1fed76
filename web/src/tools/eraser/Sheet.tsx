import { useStore } from '../../store/useStore';
import { Choice } from '../../ui/Choice';
import { Slider } from '../../ui/Slider';
import type { ToolDesk } from '../toolWork';
import { t } from '../../words';

/** What can be chosen for the eraser. */
export default function EraserSheet({ desk: { penCase } }: { desk: Pick<ToolDesk, 'penCase'> }) {
  const { eraser, eraserRadius } = useStore(penCase);
  return (
    <>
      <Choice
        label={t('tools.whatTheEraserTakes')}
        value={eraser}
        columns={2}
        options={[
          { value: 'whole', name: t('tools.wholeMarks') },
          { value: 'rubber', name: t('tools.onlyWhatItTouches') },
        ]}
        onChange={(value) => penCase.patch({ eraser: value })}
      />
      <Slider
        label={t('common.size')}
        value={eraserRadius * 2}
        min={6}
        max={120}
        step={2}
        onChange={(size) => penCase.patch({ eraserRadius: size / 2 })}
      />
    </>
  );
}
