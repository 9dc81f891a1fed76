import type { FilmChapter } from '@doodla/core/explain';
import { t } from '../words';
import { playTime } from './playTime';

interface ChapterListProps {
  chapters: readonly FilmChapter[];
  /** The one that plays, counted from 0. */
  at: number;
  /** Goes to where a chapter begins; milliseconds of the playback. */
  onGo(time: number): void;
}

/** Chapters with their times, to go to. */
export function ChapterList({ chapters, at, onGo }: ChapterListProps) {
  return (
    <select
      aria-label={t('replay.chapters')}
      value={at}
      onChange={({ target }) => onGo(chapters[target.selectedIndex]!.at)}
      className="min-h-11 max-w-56 min-w-0 rounded-xl border-2 border-board-line bg-board-light px-2 text-paper"
    >
      {chapters.map(({ at: time, name }, i) => (
        <option key={i} value={i}>
          {playTime(time)} {name}
        </option>
      ))}
    </select>
  );
}
