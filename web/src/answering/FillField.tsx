import type { MarkOf } from '@doodla/core';
import { markBounds } from '@doodla/core';
import { MOST_FILLED } from '@doodla/core/answers';
import { useState } from 'react';
import { t } from '../words';
import { sayMark } from '../words/marks';
import { placeOf } from './places';

interface FillFieldProps {
  /** As it was made, and what was filled in. */
  mark: MarkOf<'text'>;
  seen: MarkOf<'text'>;
  scale: number;
  /** Under which name what is half typed is kept in this window, should pens go down or the page be loaded again. */
  draft: string;
  onFilled(words: string): void;
}

/** A field to be filled in, over the words that it has. */
export function FillField({ mark, seen, scale, draft, onFilled }: FillFieldProps) {
  const filled = seen.standIn && seen.text !== mark.text ? seen.text : '';
  const [typed, setShown] = useState(() => sessionStorage.getItem(draft) ?? undefined);
  const setTyped = (words: string | undefined) => {
    if (words === undefined) sessionStorage.removeItem(draft);
    else sessionStorage.setItem(draft, words);
    setShown(words);
  };
  const take = () => {
    if (typed !== undefined && typed !== filled) onFilled(typed);
    setTyped(undefined);
  };
  return (
    <input
      aria-label={t('answers.fillIn', { name: sayMark(mark) })}
      value={typed ?? filled}
      maxLength={MOST_FILLED}
      autoComplete="off"
      autoCapitalize="off"
      spellCheck={false}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Enter') event.currentTarget.blur();
        if (event.key === 'Escape') setTyped(undefined);
      }}
      className="pointer-events-auto absolute rounded-md border-2 border-dashed border-board bg-white px-1 text-ink focus-visible:border-solid"
      style={{
        ...placeOf(markBounds(seen), scale),
        fontSize: Math.max(11, mark.style.size * scale),
        textAlign: mark.style.align,
      }}
    />
  );
}
