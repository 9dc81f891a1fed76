import type { StampName } from '@doodla/core';
import { STAMPS } from '@doodla/core';
import { useStore } from '../../store/useStore';
import { Choice } from '../../ui/Choice';
import { OwnStamps } from './OwnStamps';
import { StampIcon } from './StampIcon';
import type { ToolDesk } from '../toolWork';
import { t } from '../../words';
import { STAMP_NAMES } from '../../words/marks';

/** What can be chosen for stamps. */
export default function StampSheet({
  desk: { penCase, isTeacher },
}: {
  desk: Pick<ToolDesk, 'isTeacher' | 'penCase'>;
}) {
  const { stamp, ownStamp } = useStore(penCase);
  return (
    <>
      <Choice<StampName | ''>
        label={t('tools.stamp')}
        value={ownStamp === null ? stamp : ''}
        options={STAMPS.map((value) => ({
          value,
          name: STAMP_NAMES[value],
          face: <StampIcon stamp={value} />,
        }))}
        onChange={(value) => value !== '' && penCase.patch({ stamp: value, ownStamp: null })}
      />
      {isTeacher && <OwnStamps penCase={penCase} />}
    </>
  );
}
