import type { Explanation, LogRef } from '@doodla/core';
import { playedParts } from '@doodla/core/explain';
import { Pencil, Play, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { bringExplanationBack, dropExplanation, putExplanation } from '../api/explanations';
import { playTime } from '../replay/playTime';
import { Button } from '../ui/Button';
import { IconButton } from '../ui/IconButton';
import { TextField } from '../ui/TextField';
import { t } from '../words';
import { dateAndTime } from '../words/dates';

interface ExplanationRowProps {
  explanation: Explanation;
  log: LogRef;
  mayChange: boolean;
  onPlay(): void;
  onChanged(): void;
}

const UNDO_SHOWN_MS = 15_000;
const ON_PAPER = '!text-ink hover:!bg-paper-dim';

/** One explanation: how long it is, and what can be done with it. */
export function ExplanationRow({ explanation, log, mayChange, onPlay, onChanged }: ExplanationRowProps) {
  const { id, name, parts, stops, chapters, captions, finished, createdAt } = explanation;
  const [naming, setNaming] = useState(false);
  const length = playedParts(explanation).reduce((sum, part) => sum + part.length, 0);
  const attempt = (action: Promise<void>, done?: () => void) =>
    void action.then(
      () => {
        onChanged();
        done?.();
      },
      (error: Error) => toast.error(error.message),
    );
  const rename = (wanted: string) => {
    setNaming(false);
    if (wanted.trim() !== '')
      attempt(putExplanation(log, id, { name: wanted.trim(), parts, stops, chapters, captions, finished }));
  };
  const drop = () =>
    attempt(dropExplanation(log, id), () =>
      toast(t('explain.wasDropped', { name }), {
        duration: UNDO_SHOWN_MS,
        action: { label: t('common.undo'), onClick: () => attempt(bringExplanationBack(log, id)) },
      }),
    );
  return (
    <li className="rounded-xl border-2 border-paper-line p-2">
      {naming ? (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            rename(new FormData(event.currentTarget).get('name') as string);
          }}
        >
          <TextField label={t('explain.name')} name="name" defaultValue={name} maxLength={120} autoFocus />
          <Button type="submit">{t('common.keepThisName')}</Button>
        </form>
      ) : (
        <div className="flex items-center gap-2">
          <div className="min-w-0 grow">
            <p className="truncate font-bold" title={name}>
              {name}
            </p>
            <p className="text-sm text-ink-soft">
              {[playTime(length), dateAndTime(createdAt), finished ? '' : t('explain.notFinished')]
                .filter(Boolean)
                .join(' · ')}
            </p>
          </div>
          <Button look="main" icon={<Play aria-hidden size={18} />} disabled={length === 0} onClick={onPlay}>
            {t('explain.play')}
          </Button>
          {mayChange && (
            <>
              <IconButton
                className={ON_PAPER}
                label={t('explain.rename')}
                icon={<Pencil aria-hidden size={20} />}
                onClick={() => setNaming(true)}
              />
              <IconButton
                className={ON_PAPER}
                label={t('explain.drop')}
                icon={<Trash2 aria-hidden size={20} />}
                onClick={drop}
              />
            </>
          )}
        </div>
      )}
    </li>
  );
}
