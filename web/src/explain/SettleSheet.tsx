import { useState } from 'react';
import { Button } from '../ui/Button';
import { ProgressBar } from '../ui/ProgressBar';
import { t } from '../words';

interface SettleSheetProps {
  /** Tells how much is done, 0 to 1. */
  onSettle(onProgress: (share: number) => void): Promise<void>;
  onDone(): void;
  onCancel(): void;
  onProblem(error: Error): void;
}

/** Asks before what does not play is dropped for good. */
export function SettleSheet({ onSettle, onDone, onCancel, onProblem }: SettleSheetProps) {
  const [share, setShare] = useState<number>();
  const busy = share !== undefined;
  const settle = () => {
    setShare(0);
    onSettle(setShare).then(onDone, (error: Error) => {
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
      <div role="status" className="min-w-60 grow">
        {busy ? <ProgressBar label={t('explain.isDropping')} part={share} /> : t('explain.dropRestHint')}
      </div>
      <Button disabled={busy} onClick={onCancel}>
        {t('common.cancel')}
      </Button>
      <Button look="alarm" disabled={busy} onClick={settle}>
        {t('explain.dropForGood')}
      </Button>
    </div>
  );
}
