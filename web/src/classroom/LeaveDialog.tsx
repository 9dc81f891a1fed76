import type { Blocker } from 'react-router';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';
import { t } from '../words';

interface LeaveDialogProps {
  blocker: Blocker;
  onEnd(): void;
}

/** Asks a teacher who goes back from a class that is still going on. */
export function LeaveDialog({ blocker, onEnd }: LeaveDialogProps) {
  if (blocker.state !== 'blocked') return null;
  const stay = () => blocker.reset();
  return (
    <Modal
      title={t('classroom.leaveTheClass')}
      description={t('classroom.itGoesOnWithoutYou')}
      open
      onOpenChange={stay}
    >
      <div className="flex flex-wrap justify-end gap-2">
        <Button
          onClick={() => {
            stay();
            onEnd();
          }}
        >
          {t('classroom.endClass2')}
        </Button>
        <Button onClick={() => blocker.proceed()}>{t('classroom.leaveItGoingOn')}</Button>
        <Button look="main" onClick={stay}>
          {t('classroom.stay')}
        </Button>
      </div>
    </Modal>
  );
}
