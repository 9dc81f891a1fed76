import { useState } from 'react';
import { Button } from '../ui/Button';
import { t } from '../words';

interface SettleSheetProps {
  onSettle(): Promise<void>;
  onDone(): void;
  onCancel(): void;
  onProblem(error: Error): void;
}

/** Asks before what does not play is dropped for good. */
export function SettleSheet({ onSettle, onDone, onCancel, onProblem }: SettleSheetProps) {
  const [busy, setBusy] = useState(false);
  const settle = () => {
    setBusy(true);
    onSettle().then(onDone, (error: Error) => {
      onProblem(error);
      onCancel();
    });
  };
  return (
    <div
      role="group"
      aria-label={t('explain.dropRest')}
      className="flex flex-wrap items-center gap-3 rounded-2xl bg-paper p-4 text-ink"
    >
      <p role="status" className="min-w-60 grow">
        {busy ? t('explain.isDropping') : t('explain.dropRestHint')}
      </p>
      <Button disabled={busy} onClick={onCancel}>
        {t('common.cancel')}
      </Button>
      <Button look="alarm" disabled={busy} onClick={settle}>
        {t('explain.dropForGood')}
      </Button>
    </div>
  );
}
