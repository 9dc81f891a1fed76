import { useState } from 'react';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import type { Selection } from '../desk/selection';
import { t } from '../words';

/** Most copies made at once. */
const MAX_COUNT = 60;

/** Repeats what is selected in a row or a ring, as often as asked for. */
export function RepeatDialog({ selection, onClose }: { selection: Selection; onClose(): void }) {
  const [count, setCount] = useState(6);
  const valid = Number.isInteger(count) && count >= 2 && count <= MAX_COUNT;
  const repeat = (how: 'repeatInRow' | 'repeatInRing') => {
    selection[how](count);
    onClose();
  };
  return (
    <Modal title={t('selection.repeat')} open onOpenChange={onClose}>
      <label className="mb-4 flex items-center gap-3">
        <span className="font-bold">{t('selection.howManyInAll')}</span>
        <input
          type="number"
          min={2}
          max={MAX_COUNT}
          value={Number.isNaN(count) ? '' : count}
          onChange={(event) => setCount(event.target.valueAsNumber)}
          className="min-h-11 w-24 rounded-xl border-2 border-paper-line bg-white px-3"
        />
      </label>
      {!valid && (
        <p role="alert" className="mb-3 text-alarm">
          {t('selection.pleaseGiveANumber', { most: MAX_COUNT })}
        </p>
      )}
      <div className="flex flex-wrap gap-3">
        <Button look="main" disabled={!valid} onClick={() => repeat('repeatInRow')}>
          {t('selection.inARow')}
        </Button>
        <Button disabled={!valid} onClick={() => repeat('repeatInRing')}>
          {t('selection.inARing')}
        </Button>
      </div>
    </Modal>
  );
}
