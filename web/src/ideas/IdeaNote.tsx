import type { MarkOf } from '@doodla/core';
import { Vote } from 'lucide-react';
import { useState } from 'react';
import { classes } from '../ui/classes';
import { useDrag } from '../ui/useDrag';
import { t } from '../words';
import { placeOf } from './boxOf';

type Note = MarkOf<'note'>;

/** So far a pointer goes before it drags, pixels. */
const DRAG_DISTANCE = 6;

interface IdeaNoteProps {
  note: Note;
  scale: number;
  author: string;
  /** How many votes it has, where that is to be seen. */
  count: number | undefined;
  /** Whether one has voted for it oneself. */
  voted: boolean;
  voting: boolean;
  draggable: boolean;
  onChoose(id: string): void;
  onDrop(note: Note, clientX: number, clientY: number): void;
  onVote(up: boolean): void;
}

interface Grip {
  x: number;
  y: number;
  moved: boolean;
}

/** A note that is dragged onto another, or chosen; and the votes for it. */
export function IdeaNote(props: IdeaNoteProps) {
  const { note, scale, author, count, voted, draggable, voting, onChoose, onDrop, onVote } = props;
  const [by, setBy] = useState<{ x: number; y: number }>();
  const drag = useDrag<Grip>({
    begin: ({ clientX, clientY }) => ({ x: clientX, y: clientY, moved: false }),
    move({ clientX, clientY }, grip) {
      const [dx, dy] = [clientX - grip.x, clientY - grip.y];
      grip.moved ||= Math.hypot(dx, dy) >= DRAG_DISTANCE;
      if (grip.moved && draggable) setBy({ x: dx, y: dy });
    },
    end({ clientX, clientY }, { moved }, dropped) {
      setBy(undefined);
      if (!dropped) return;
      if (!moved) onChoose(note.id);
      else if (draggable) onDrop(note, clientX, clientY);
    },
  });
  const place = placeOf(note, scale);
  const words = note.text || t('ideas.withoutWords');
  return (
    <div className="absolute" style={place}>
      <button
        type="button"
        aria-haspopup="menu"
        aria-label={t('ideas.ideaOf', { author, words })}
        {...drag}
        onKeyDown={(event) => {
          if (event.key !== 'Enter' && event.key !== ' ') return;
          event.preventDefault();
          onChoose(note.id);
        }}
        className={classes(
          'pointer-events-auto absolute inset-0 touch-none rounded-sm',
          draggable ? 'cursor-grab' : 'cursor-pointer',
        )}
      />
      {by && (
        <div
          aria-hidden
          className="absolute inset-0 z-10 overflow-hidden rounded-sm p-2 text-sm shadow-xl outline-3 outline-board"
          style={{ transform: `translate(${by.x}px, ${by.y}px)`, background: note.style.colour }}
        >
          {note.text}
        </div>
      )}
      {(voting || (count ?? 0) > 0) && (
        <Votes count={count} voted={voted} voting={voting} words={words} onVote={onVote} />
      )}
    </div>
  );
}

type VotesProps = Pick<IdeaNoteProps, 'count' | 'voted' | 'voting' | 'onVote'> & { words: string };

function Votes({ count, voted, voting, words, onVote }: VotesProps) {
  const look =
    'absolute right-0 bottom-0 translate-y-1/2 flex min-h-6 items-center gap-1 rounded-full px-2 text-sm font-bold shadow';
  const inside = (
    <>
      <Vote aria-hidden size={14} />
      {count !== undefined && count > 0 ? count : ''}
    </>
  );
  if (!voting)
    return (
      <span className={classes(look, 'bg-board text-paper')} title={t('ideas.votes', { count: count ?? 0 })}>
        {inside}
        <span className="sr-only">{t('ideas.votes', { count: count ?? 0 })}</span>
      </span>
    );
  const label = t(voted ? 'ideas.takeVoteBack' : 'ideas.voteFor', { words });
  return (
    <button
      type="button"
      aria-pressed={voted}
      aria-label={label}
      title={label}
      onClick={() => onVote(!voted)}
      className={classes(look, 'pointer-events-auto', voted ? 'bg-board text-paper' : 'bg-paper text-ink')}
    >
      {voted && <span aria-hidden>✓</span>}
      {inside}
    </button>
  );
}
