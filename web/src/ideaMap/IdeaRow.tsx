import { isFolded, wordsOf } from '@doodla/core/idea-map';
import { ChevronDown, ChevronRight } from 'lucide-react';
import type { KeyboardEvent } from 'react';
import { useEffect, useRef, useState } from 'react';
import { classes } from '../ui/classes';
import { t } from '../words';
import type { Row } from './ideaRows';

/** So long nothing is typed before it is put on the page, milliseconds. */
const REST_MS = 700;
/** How far a row is moved in for each step, and how far at most; pixels. */
const [INDENT, MOST_INDENT] = [16, 112];
const MOST_LETTERS = 500;

interface IdeaRowProps {
  row: Row;
  isCurrent: boolean;
  mayChange: boolean;
  onCurrent(): void;
  onText(text: string): void;
  onFold(away: boolean): void;
  /** Returns whether the key meant something. */
  onKey(event: KeyboardEvent, text: string): boolean;
}

/** An idea as a line that can be typed in. */
export function IdeaRow({ row, isCurrent, mayChange, onCurrent, onText, onFold, onKey }: IdeaRowProps) {
  const { idea, depth } = row;
  const words = wordsOf(idea).trim();
  const [typed, setTyped] = useState<string>();
  const text = typed ?? words;
  const keep = () => {
    if (typed !== undefined && typed !== words) onText(typed);
    setTyped(undefined);
  };
  const put = useRef(onText);
  useEffect(() => {
    put.current = onText;
  }, [onText]);
  useEffect(() => {
    if (typed === undefined || typed === words) return;
    const timer = setTimeout(() => put.current(typed), REST_MS);
    return () => clearTimeout(timer);
  }, [typed, words]);
  const folded = isFolded(idea);
  return (
    <li className="flex items-center" style={{ paddingLeft: Math.min(MOST_INDENT, depth * INDENT) }}>
      {idea.children.length > 0 ? (
        <button
          type="button"
          aria-expanded={!folded}
          aria-label={t(folded ? 'ideaMap.unfold' : 'ideaMap.fold', { text })}
          onClick={() => onFold(!folded)}
          className="grid min-h-11 w-9 shrink-0 place-items-center rounded-lg hover:bg-board-light"
        >
          {folded ? <ChevronRight aria-hidden size={18} /> : <ChevronDown aria-hidden size={18} />}
        </button>
      ) : (
        <span aria-hidden className="w-9 shrink-0 text-center">
          ·
        </span>
      )}
      <input
        data-idea={idea.mark.id}
        aria-label={t('ideaMap.idea', { depth })}
        value={text}
        readOnly={!mayChange}
        maxLength={MOST_LETTERS}
        placeholder={t('ideaMap.newIdea')}
        onFocus={onCurrent}
        onBlur={keep}
        onChange={({ target }) => setTyped(target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Enter') keep();
          onKey(event, text);
        }}
        className={classes(
          'min-h-11 w-full min-w-0 rounded-lg border-2 px-2 text-ink',
          isCurrent ? 'border-chalk bg-white' : 'border-transparent bg-paper',
          !mayChange && 'italic',
        )}
      />
    </li>
  );
}
