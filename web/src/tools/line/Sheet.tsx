import { CornerRightDown } from 'lucide-react';
import type { ReactNode } from 'react';
import { useStore } from '../../store/useStore';
import { Choice } from '../../ui/Choice';
import { Switch } from '../../ui/Switch';
import type { OutlineDesk } from '../OutlineSheet';
import { FillingOf, OutlineOf } from '../OutlineSheet';
import type { LineType } from './facts';
import { t } from '../../words';

const LINE_NAMES: Record<LineType, { name: string; face: ReactNode }> = {
  line: { name: t('common.line'), face: '╱' },
  arrow: { name: t('tools.arrow'), face: '→' },
  doubleArrow: { name: t('tools.arrowBothWays'), face: '↔' },
  elbow: {
    name: t('tools.connectorWithRightAngles'),
    face: <CornerRightDown aria-hidden size={20} className="mx-auto" />,
  },
  curve: { name: t('tools.curve'), face: '⌒' },
  wave: { name: t('tools.curveWithTwoBends'), face: '∿' },
  polyline: { name: t('tools.cornersByClicking'), face: '⋀⋁' },
  polygon: { name: t('tools.freePolygonByClicking'), face: '⬠' },
};

/** What can be chosen for lines. */
export default function LineSheet({ desk }: { desk: OutlineDesk }) {
  const { penCase } = desk;
  const { line, snaps } = useStore(penCase);
  return (
    <>
      <Choice
        label={t('tools.kindOfLine')}
        value={line}
        options={Object.entries(LINE_NAMES).map(([value, { name, face }]) => ({
          value: value as LineType,
          name,
          face,
        }))}
        onChange={(value) => penCase.patch({ line: value })}
      />
      <Switch label={t('construct.snaps')} checked={snaps} onChange={(on) => penCase.patch({ snaps: on })} />
      {line === 'polygon' && <FillingOf desk={desk} />}
      <OutlineOf desk={desk} />
    </>
  );
}
