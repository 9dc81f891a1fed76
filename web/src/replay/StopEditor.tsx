import { MOST_STOP_TEXT } from '@doodla/core';
import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { Button } from '../ui/Button';
import { t } from '../words';
import { playTime } from './playTime';
import type { PlayedStop } from './useStops';

/** Times that one chooses from, seconds. */
const TIMES = [30, 60, 120, 180, 300, 600] as const;

interface StopEditorProps {
  stop: PlayedStop;
  onKeep(stop: PlayedStop): void;
  /** Leaves it as it was. */
  onLeave(): void;
  onRemove(stop: PlayedStop): void;
}

/** What a stop says, and how long it counts down. */
export function StopEditor({ stop, onKeep, onLeave, onRemove }: StopEditorProps) {
  const [text, setText] = useState(stop.text);
  const [seconds, setSeconds] = useState(stop.seconds);
  return (
    <form
      aria-label={t('replay.stop')}
      onSubmit={(event) => {
        event.preventDefault();
        onKeep({ ...stop, text: text.trim(), seconds });
      }}
      className="flex flex-wrap items-end gap-3 rounded-2xl bg-paper px-4 py-3 text-ink"
    >
      <label className="min-w-48 grow">
        <span className="mb-1 block font-bold">{t('replay.stopText')}</span>
        <input
          autoFocus
          value={text}
          maxLength={MOST_STOP_TEXT}
          onChange={({ target }) => setText(target.value)}
          onKeyDown={({ key }) => key === 'Escape' && onLeave()}
          className="min-h-11 w-full rounded-xl border-2 border-paper-line bg-white px-3"
        />
      </label>
      <label>
        <span className="mb-1 block font-bold">{t('replay.stopTime')}</span>
        <select
          value={seconds ?? ''}
          onChange={({ target }) => setSeconds(target.value === '' ? null : Number(target.value))}
          className="min-h-11 rounded-xl border-2 border-paper-line bg-white px-3"
        >
          <option value="">{t('replay.noTime')}</option>
          {TIMES.map((each) => (
            <option key={each} value={each}>
              {playTime(each * 1000)}
            </option>
          ))}
        </select>
      </label>
      <Button type="submit" look="main">
        {t('replay.keepStop')}
      </Button>
      <Button icon={<Trash2 aria-hidden size={18} />} onClick={() => onRemove(stop)}>
        {t('common.delete')}
      </Button>
    </form>
  );
}
