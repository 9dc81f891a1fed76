import { useStore } from '../../store/useStore';
import { Choice } from '../../ui/Choice';
import { PercentSlider } from '../../ui/PercentSlider';
import { Slider } from '../../ui/Slider';
import { Switch } from '../../ui/Switch';
import type { ToolDesk } from '../toolWork';

const NATURE_NAMES = { pen: 'Pen', pencil: 'Pencil', marker: 'Marker', chalk: 'Chalk' } as const;

/** What can be chosen for the pen. */
export default function PenSheet({ desk: { penCase } }: { desk: Pick<ToolDesk, 'penCase'> }) {
  const { pen, steadying, finger, otherHand } = useStore(penCase);
  const set = (part: Partial<typeof pen>) => penCase.patch({ pen: { ...pen, ...part } });
  return (
    <>
      <Choice
        label="Kind of pen"
        value={pen.nature}
        columns={2}
        options={Object.entries(NATURE_NAMES).map(([value, name]) => ({
          value: value as typeof pen.nature,
          name,
        }))}
        onChange={(nature) => set({ nature })}
      />
      <Slider
        label="Width"
        value={pen.width}
        min={1}
        max={40}
        step={0.5}
        onChange={(width) => set({ width })}
      />
      <PercentSlider label="Opacity" value={pen.opacity} onChange={(opacity) => set({ opacity })} />
      <Slider
        label="Smooth shaky lines"
        value={Math.round(steadying * 100)}
        min={0}
        max={90}
        step={5}
        unit=" %"
        onChange={(value) => penCase.patch({ steadying: value / 100 })}
      />
      <p className="text-sm">When you write with a pen, a finger:</p>
      <Choice
        label="What a finger does when you write with a pen"
        value={finger}
        columns={3}
        options={[
          { value: 'write', name: 'Writes' },
          { value: 'move', name: 'Moves' },
          { value: 'nothing', name: 'Rests' },
        ]}
        onChange={(value) => penCase.patch({ finger: value })}
      />
      <Switch
        label="Two people write: a second pen for the other half"
        checked={otherHand !== null}
        onChange={(on) => penCase.patch({ otherHand: on ? penCase.get().ready[1]! : null })}
      />
    </>
  );
}
