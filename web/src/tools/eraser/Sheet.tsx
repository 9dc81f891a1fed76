import { useStore } from '../../store/useStore';
import { Choice } from '../../ui/Choice';
import { Slider } from '../../ui/Slider';
import type { ToolDesk } from '../toolWork';

/** What can be chosen for the eraser. */
export default function EraserSheet({ desk: { penCase } }: { desk: Pick<ToolDesk, 'penCase'> }) {
  const { eraser, eraserRadius } = useStore(penCase);
  return (
    <>
      <Choice
        label="What the eraser takes"
        value={eraser}
        columns={2}
        options={[
          { value: 'whole', name: 'Whole marks' },
          { value: 'rubber', name: 'Only what it touches' },
        ]}
        onChange={(value) => penCase.patch({ eraser: value })}
      />
      <Slider
        label="Size"
        value={eraserRadius * 2}
        min={6}
        max={120}
        step={2}
        onChange={(size) => penCase.patch({ eraserRadius: size / 2 })}
      />
    </>
  );
}
