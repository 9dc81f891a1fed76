import { CornerRightDown } from 'lucide-react';
import type { ReactNode } from 'react';
import { useStore } from '../../store/useStore';
import { Choice } from '../../ui/Choice';
import type { OutlineDesk } from '../OutlineSheet';
import { FillingOf, OutlineOf } from '../OutlineSheet';
import type { LineType } from './facts';

const LINE_NAMES: Record<LineType, { name: string; face: ReactNode }> = {
  line: { name: 'Line', face: '╱' },
  arrow: { name: 'Arrow', face: '→' },
  doubleArrow: { name: 'Arrow both ways', face: '↔' },
  elbow: {
    name: 'Connector with right angles',
    face: <CornerRightDown aria-hidden size={20} className="mx-auto" />,
  },
  curve: { name: 'Curve', face: '⌒' },
  wave: { name: 'Curve with two bends', face: '∿' },
  polyline: { name: 'Corners by clicking', face: '⋀⋁' },
  polygon: { name: 'Free polygon by clicking', face: '⬠' },
};

/** What can be chosen for lines. */
export default function LineSheet({ desk }: { desk: OutlineDesk }) {
  const { penCase } = desk;
  const { line } = useStore(penCase);
  return (
    <>
      <Choice
        label="Kind of line"
        value={line}
        options={Object.entries(LINE_NAMES).map(([value, { name, face }]) => ({
          value: value as LineType,
          name,
          face,
        }))}
        onChange={(value) => penCase.patch({ line: value })}
      />
      {line === 'polygon' && <FillingOf desk={desk} />}
      <OutlineOf desk={desk} />
    </>
  );
}
