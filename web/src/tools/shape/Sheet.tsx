import type { Form } from '@doodla/core';
import { FORMS, shapePath, toSvgPath } from '@doodla/core';
import { useStore } from '../../store/useStore';
import { Choice } from '../../ui/Choice';
import { Slider } from '../../ui/Slider';
import type { OutlineDesk } from '../OutlineSheet';
import { FillingOf, OutlineOf } from '../OutlineSheet';
import { t } from '../../words';
import { FORM_NAMES } from '../../words/marks';

/** What can be chosen for shapes. */
export default function ShapeSheet({ desk }: { desk: OutlineDesk }) {
  const { penCase } = desk;
  const { form, sides } = useStore(penCase);
  return (
    <>
      <Choice
        label={t('tools.shape')}
        value={form}
        options={FORMS.map((value) => ({
          value,
          name: FORM_NAMES[value],
          face: <FormIcon form={value} sides={sides} />,
        }))}
        onChange={(value) => penCase.patch({ form: value })}
      />
      {(form === 'polygon' || form === 'star') && (
        <Slider
          label={t('tools.corners')}
          value={sides}
          min={3}
          max={12}
          step={1}
          onChange={(value) => penCase.patch({ sides: value })}
        />
      )}
      <FillingOf desk={desk} />
      <OutlineOf desk={desk} />
    </>
  );
}

function FormIcon({ form, sides }: { form: Form; sides: number }) {
  const path = toSvgPath(shapePath({ form, sides, x: 2, y: 3, width: 24, height: 20 }));
  return (
    <svg viewBox="0 0 28 26" className="size-7" aria-hidden>
      <path d={path} fill="none" stroke="currentColor" strokeWidth={2} strokeLinejoin="round" />
    </svg>
  );
}
