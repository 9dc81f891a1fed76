import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';
import { useRef } from 'react';
import { Button } from '../ui/Button';
import { focusNow, giveFocusBack } from '../ui/focus';
import { Problem } from '../ui/Problem';
import { ProgressBar } from '../ui/ProgressBar';
import { t } from '../words';
import { isInText } from './isTyping';
import { ReplayHead } from './ReplayHead';

/** What plays, over the whole window. */
export function PlayedDialog({ onClose, children }: { onClose(): void; children: ReactNode }) {
  const before = useRef<HTMLElement>(undefined);
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
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

interface ReadingProps {
  problem?: string;
  share: number;
  again(): void;
}

/** How far the reading is, or why it could not be read. */
export function Reading({ problem, share, again }: ReadingProps) {
  return (
    <>
      <ReplayHead title={t('replay.title')} />
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
  );
}
