import { MOST_CHAPTER_NAME } from '@doodla/core';
import type { Turn } from '@doodla/core/replay';
import { PenLine } from 'lucide-react';
import { useState } from 'react';
import type { PageDesk } from '../room/pageDesk';
import { useStore } from '../store/useStore';
import { Button } from '../ui/Button';
import { IconButton } from '../ui/IconButton';
import { t } from '../words';
import { ChapterList } from './ChapterList';
import { chapterName } from './chapterName';
import type { Player } from './player';

interface ChaptersProps {
  desk: PageDesk;
  player: Player;
  /** Keeps what a chapter is called; an empty name is that of its page. Not given where one may not. */
  onName?: ((turn: Turn, name: string) => Promise<void>) | undefined;
}

/** The chapters of a class, one for each page that it came to: where one is, going to another, and their names. */
export function Chapters({ desk, player, onName }: ChaptersProps) {
  const { time } = useStore(player.state);
  const [names, setNames] = useState<Readonly<Record<number, string>>>({});
  const [isNaming, setNaming] = useState(false);
  const { replay } = player;
  const { room } = desk;
  const pages = useStore(desk.pages);
  const at = replay.turnAt(time);
  const turn = replay.turns[at];
  if (!turn) return null;
  const times = replay.turnTimes();
  const nameOf = ({ at: when, page, name }: Turn) =>
    chapterName({ page, name: names[when] ?? name ?? null }, pages);
  const rename = (name: string) => {
    setNaming(false);
    setNames({ ...names, [turn.at]: name });
    onName!(turn, name).catch((error: Error) => {
      setNames(names);
      room.tellProblem(error.message);
    });
  };
  if (isNaming) return <NameField name={nameOf(turn)} onKeep={rename} onLeave={() => setNaming(false)} />;
  return (
    <div className="flex min-w-0 items-center">
      <ChapterList
        chapters={replay.turns.map((each, i) => ({ at: times[i]!, name: nameOf(each) }))}
        at={at}
        onGo={(time) => player.seek(time)}
      />
      {onName && (turn.id !== undefined || turn.place) && (
        <IconButton
          label={t('replay.nameChapter')}
          icon={<PenLine aria-hidden size={20} />}
          tooltipSide="none"
          onClick={() => setNaming(true)}
        />
      )}
    </div>
  );
}

interface NameFieldProps {
  name: string;
  onKeep(name: string): void;
  onLeave(): void;
}

function NameField({ name, onKeep, onLeave }: NameFieldProps) {
  const [typed, setTyped] = useState(name);
  return (
    <form
      className="flex flex-wrap items-center gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        onKeep(typed.trim());
      }}
    >
      <input
        autoFocus
        aria-label={t('replay.chapterName')}
        value={typed}
        maxLength={MOST_CHAPTER_NAME}
        onChange={({ target }) => setTyped(target.value)}
        onKeyDown={({ key }) => key === 'Escape' && onLeave()}
        className="min-h-11 w-48 rounded-xl border-2 border-board-line bg-white px-3 text-ink"
      />
      <Button type="submit" look="onBoard">
        {t('replay.keepStop')}
      </Button>
    </form>
  );
}
