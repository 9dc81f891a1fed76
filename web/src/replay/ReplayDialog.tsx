import { Dialog } from 'radix-ui';
import { useRef } from 'react';
import type { PageDesk } from '../room/pageDesk';
import { Button } from '../ui/Button';
import { focusNow, giveFocusBack } from '../ui/focus';
import { Problem } from '../ui/Problem';
import { ProgressBar } from '../ui/ProgressBar';
import { t } from '../words';
import { isInText } from './isTyping';
import { ReplayHead } from './ReplayHead';
import { ReplayView } from './ReplayView';
import { useRecorded } from './useRecorded';

interface ReplayDialogProps {
  desk: PageDesk;
  /** The page that is played first; the whole class where it is left out. */
  page?: string;
  onClose(): void;
}

/** A page or the whole class, played again as it was written. */
export default function ReplayDialog({ desk, page, onClose }: ReplayDialogProps) {
  const before = useRef<HTMLElement>(undefined);
  const { recorded, problem, share, again } = useRecorded(desk.room);
  return (
    <Dialog.Root open onOpenChange={onClose}>
      <Dialog.Portal>
        <Dialog.Content
          aria-describedby={undefined}
          // From a field, Escape leaves the field.
          onEscapeKeyDown={(event) => isInText(event.target) && event.preventDefault()}
          onOpenAutoFocus={() => {
            before.current = focusNow();
          }}
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            giveFocusBack(before.current);
          }}
          className="fixed inset-0 z-40 flex flex-col gap-2 overflow-auto bg-board p-3 text-paper compact:p-1"
        >
          {recorded ? (
            <ReplayView desk={desk} recorded={recorded} page={page} onClose={onClose} />
          ) : (
            <>
              <ReplayHead />
              <div className="m-auto w-[min(90vw,28rem)] rounded-2xl bg-paper p-6 text-ink">
                {problem === undefined ? (
                  <ProgressBar label={t('replay.reading')} part={share} />
                ) : (
                  <>
                    <Problem>{problem}</Problem>
                    <Button onClick={again}>{t('app.tryAgain')}</Button>
                  </>
                )}
              </div>
            </>
          )}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
