import type { Explanation } from '@doodla/core';
import { Dialog } from 'radix-ui';
import { useRef } from 'react';
import type { PageDesk } from '../room/pageDesk';
import { Button } from '../ui/Button';
import { focusNow, giveFocusBack } from '../ui/focus';
import { Problem } from '../ui/Problem';
import { ProgressBar } from '../ui/ProgressBar';
import { t } from '../words';
import { ExplanationView } from './ExplanationView';
import { isInText } from './isTyping';
import { ReplayHead } from './ReplayHead';
import { ReplayView } from './ReplayView';
import { useExplained } from './useExplained';
import { useRecorded } from './useRecorded';

interface ReplayDialogProps {
  desk: PageDesk;
  /** The page that is played first; the whole class where it is left out. */
  page?: string | undefined;
  /** What was recorded, where it is that which plays. */
  explanation?: Explanation;
  onClose(): void;
}

/** A page, the whole class or an explanation, played over the whole window. */
export default function ReplayDialog({ desk, page, explanation, onClose }: ReplayDialogProps) {
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
          {explanation ? (
            <ExplanationReader desk={desk} explanation={explanation} onClose={onClose} />
          ) : (
            <LogReader desk={desk} page={page} onClose={onClose} />
          )}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

function LogReader({ desk, page, onClose }: Omit<ReplayDialogProps, 'explanation'>) {
  const { recorded, ...reading } = useRecorded(desk.room);
  if (!recorded) return <Reading {...reading} />;
  return <ReplayView desk={desk} recorded={recorded} page={page} onClose={onClose} />;
}

interface ExplanationReaderProps extends ReplayDialogProps {
  explanation: Explanation;
}

function ExplanationReader({ desk, explanation, onClose }: ExplanationReaderProps) {
  const { explained, ...reading } = useExplained(desk.room, explanation);
  if (!explained) return <Reading {...reading} />;
  return <ExplanationView desk={desk} explained={explained} onClose={onClose} />;
}

interface ReadingProps {
  problem?: string;
  share: number;
  again(): void;
}

/** How far the reading is, or why it could not be read. */
function Reading({ problem, share, again }: ReadingProps) {
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
