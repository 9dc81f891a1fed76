import type { Blocker } from 'react-router';
import { Button } from '../ui/Button';
import { Modal } from '../ui/Modal';

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
      title="Leave the class?"
      description="It goes on without you: your students stay, and you can come back to it from the lesson."
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
          End class …
        </Button>
        <Button onClick={() => blocker.proceed()}>Leave it going on</Button>
        <Button look="main" onClick={stay}>
          Stay
        </Button>
      </div>
    </Modal>
  );
}
