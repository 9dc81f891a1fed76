import { MOST_CAPTION_TEXT } from '@doodla/core';
import { readCaptions, writeSrt, writeWebVtt } from '@doodla/core/explain';
import { Download, Plus, Timer, Trash2, Upload } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { fileName } from '../handout/fileName';
import { saveFile } from '../handout/saveFile';
import type { Player } from '../replay/player';
import { playTime } from '../replay/playTime';
import { Button } from '../ui/Button';
import { IconButton } from '../ui/IconButton';
import { t } from '../words';
import type { CaptionRow, CaptionRows } from './useCaptions';
import { newRow } from './useCaptions';

interface CaptionEditorProps {
  player: Player;
  captions: CaptionRows;
  /** What files are called. */
  name: string;
  onProblem(sentence: string): void;
}

/** Larger ones are no captions. */
const MOST_BYTES = 1_000_000;

/** Lines of what is said: typed, given their times by a key while it plays, read from files and written to them. */
export function CaptionEditor({ player, captions, name, onProblem }: CaptionEditorProps) {
  const { rows, cues, set } = captions;
  const [next, setNext] = useState<number>();
  const [focused, setFocused] = useState<string>();
  useTimeKey(player, captions, next, setNext);
  const change = (index: number, text: string) => {
    // What was pasted in lines is lines.
    const [first = '', ...more] = text.split(/\r?\n/).filter((line, i) => i === 0 || line.trim() !== '');
    const added = more.map((line) => newRow(line));
    set([...rows.slice(0, index), { ...rows[index]!, text: first }, ...added, ...rows.slice(index + 1)]);
  };
  const add = (index: number) => {
    const row = newRow();
    set([...rows.slice(0, index), row, ...rows.slice(index)]);
    setFocused(row.key);
  };
  const read = async (file: File | undefined) => {
    if (!file) return;
    const found = file.size > MOST_BYTES ? undefined : readCaptions(await file.text());
    if (!found) return onProblem(t('explain.noCaptionFile'));
    set(found.map(({ from, to, text }) => newRow(text.slice(0, MOST_CAPTION_TEXT), { from, to })));
  };
  const untimed = rows.findIndex(({ times, text }) => !times && text.trim() !== '');
  return (
    <section
      aria-label={t('explain.captions')}
      className="flex flex-col gap-2 rounded-2xl bg-board-light p-2"
    >
      <ol className="flex max-h-44 flex-col gap-1 overflow-auto">
        {rows.map((row, i) => (
          <Row
            key={row.key}
            row={row}
            isNext={next === i}
            autoFocus={row.key === focused}
            onGo={() => row.times && player.seek(row.times.from)}
            onChange={(text) => change(i, text)}
            onEnter={() => add(i + 1)}
            onRemove={() => set(rows.filter((one) => one !== row))}
          />
        ))}
      </ol>
      <div className="flex flex-wrap items-center gap-2">
        <Button look="onBoard" icon={<Plus aria-hidden size={18} />} onClick={() => add(rows.length)}>
          {t('explain.addLine')}
        </Button>
        {next === undefined ? (
          <Button
            look="onBoard"
            icon={<Timer aria-hidden size={18} />}
            disabled={rows.length === 0}
            onClick={() => {
              setNext(untimed < 0 ? 0 : untimed);
              player.play();
            }}
          >
            {t('explain.setTimes')}
          </Button>
        ) : (
          <Button
            onClick={() => {
              setNext(undefined);
              player.pause();
            }}
          >
            {t('explain.timesSet')}
          </Button>
        )}
        {next !== undefined && <p role="status">{t('explain.pressEnter')}</p>}
        <span className="grow" />
        <FileButton onFile={(file) => void read(file)} />
        <Button
          look="onBoard"
          icon={<Download aria-hidden size={18} />}
          disabled={cues.length === 0}
          onClick={() => saveFile(new Blob([writeWebVtt(cues)], { type: 'text/vtt' }), fileName(name, 'vtt'))}
        >
          {t('explain.asVtt')}
        </Button>
        <Button
          look="onBoard"
          icon={<Download aria-hidden size={18} />}
          disabled={cues.length === 0}
          onClick={() =>
            saveFile(new Blob([writeSrt(cues)], { type: 'application/x-subrip' }), fileName(name, 'srt'))
          }
        >
          {t('explain.asSrt')}
        </Button>
      </div>
    </section>
  );
}

interface RowProps {
  row: CaptionRow;
  isNext: boolean;
  autoFocus: boolean;
  onGo(): void;
  onChange(text: string): void;
  onEnter(): void;
  onRemove(): void;
}

function Row({ row, isNext, autoFocus, onGo, onChange, onEnter, onRemove }: RowProps) {
  const [typed, setTyped] = useState(row.text);
  const keep = () => typed !== row.text && onChange(typed);
  const type = (text: string) => {
    const [first = '', ...more] = text.split(/\r?\n/);
    setTyped(first);
    if (more.length > 0) onChange(text);
  };
  return (
    <li className="flex items-center gap-2" aria-current={isNext || undefined}>
      <button
        type="button"
        disabled={!row.times}
        aria-label={
          row.times ? t('explain.goToLine', { time: playTime(row.times.from) }) : t('explain.noTimeYet')
        }
        className={`min-h-11 w-16 shrink-0 rounded-xl tabular-nums ${isNext ? 'bg-chalk text-board' : 'hover:bg-board-hover'}`}
        onClick={onGo}
      >
        {row.times ? playTime(row.times.from) : '–'}
      </button>
      <textarea
        autoFocus={autoFocus}
        rows={1}
        aria-label={t('explain.line')}
        value={typed}
        maxLength={20 * MOST_CAPTION_TEXT}
        onChange={({ target }) => type(target.value)}
        onBlur={keep}
        onKeyDown={(event) => {
          if (event.key !== 'Enter' || event.shiftKey) return;
          event.preventDefault();
          keep();
          onEnter();
        }}
        className="min-h-11 min-w-0 grow resize-none rounded-xl border-2 border-board-line bg-white px-3 py-2 text-ink"
      />
      <IconButton
        label={t('explain.removeLine')}
        icon={<Trash2 aria-hidden size={18} />}
        tooltipSide="none"
        onClick={onRemove}
      />
    </li>
  );
}

function FileButton({ onFile }: { onFile(file: File | undefined): void }) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={input}
        type="file"
        accept=".vtt,.srt,text/vtt"
        aria-label={t('explain.chooseCaptions')}
        className="sr-only"
        tabIndex={-1}
        onChange={({ target }) => {
          onFile(target.files?.[0]);
          target.value = '';
        }}
      />
      <Button look="onBoard" icon={<Upload aria-hidden size={18} />} onClick={() => input.current?.click()}>
        {t('explain.readCaptions')}
      </Button>
    </>
  );
}

/** While times are set, Enter says that the next line begins now. */
function useTimeKey(
  player: Player,
  { rows, time }: CaptionRows,
  next: number | undefined,
  setNext: (next: number | undefined) => void,
): void {
  useEffect(() => {
    if (next === undefined) return;
    const pressed = (event: KeyboardEvent) => {
      if (event.key !== 'Enter' || event.target instanceof HTMLTextAreaElement) return;
      event.preventDefault();
      event.stopPropagation();
      time(next, Math.round(player.state.get().time));
      setNext(next + 1 < rows.length ? next + 1 : undefined);
    };
    document.addEventListener('keydown', pressed, true);
    return () => document.removeEventListener('keydown', pressed, true);
  });
}
