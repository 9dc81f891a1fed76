import type { Mark, MarkOf } from '@doodla/core';
import { markBounds } from '@doodla/core';
import { isFree, MOST_FILLED } from '@doodla/core/answers';
import type { KeyboardEvent } from 'react';
import { useState } from 'react';
import { classes } from '../ui/classes';
import { t } from '../words';
import { sayMark } from '../words/marks';
import type { Way } from './cells';
import { cellBeside, isCell, wayFrom } from './cells';
import { placeOf } from './places';

/** Which way words are filled in, letter by letter. */
let way: Way = 'across';

const STEPS: Readonly<Record<string, [Way, 1 | -1]>> = {
  ArrowLeft: ['across', -1],
  ArrowRight: ['across', 1],
  ArrowUp: ['down', -1],
  ArrowDown: ['down', 1],
};

interface Selectable {
  select(): void;
}

interface FillFieldProps {
  /** As it was made, and what was filled in. */
  mark: MarkOf<'text'>;
  seen: MarkOf<'text'>;
  scale: number;
  /** All fields of one letter on the page. */
  cells: readonly Mark[];
  /** Under which name what is half typed is kept in this window, should pens go down or the page be loaded again. */
  draft: string;
  onFilled(words: string): void;
}

/** A field to be filled in, over the words that it has. */
export function FillField({ mark, seen, scale, cells, draft, onFilled }: FillFieldProps) {
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
  const goTo = (cell: Mark | undefined) => {
    if (cell) document.getElementById(fieldId(cell))?.focus();
  };
  const single = isCell(mark);
  const typedOn = (words: string) => {
    if (!single) return setTyped(words);
    const letter = [...words].at(-1)?.trim().toLocaleUpperCase()[0] ?? '';
    setTyped(undefined);
    if (letter !== filled) onFilled(letter);
    way = wayFrom(cells, mark, way);
    if (letter !== '') goTo(cellBeside(cells, mark, way, 1));
  };
  const stepped = ({ key }: KeyboardEvent) => {
    const step = STEPS[key];
    if (!single) return;
    if (step) {
      way = step[0];
      goTo(cellBeside(cells, mark, ...step));
    } else if (key === 'Backspace' && filled === '') goTo(cellBeside(cells, mark, way, -1));
  };
  // What anybody may write is often more than a line.
  const Field = mark.rule?.fill && isFree(mark.rule.fill) ? 'textarea' : 'input';
  return (
    <Field
      id={fieldId(mark)}
      aria-label={t('answers.fillIn', { name: sayMark(mark) })}
      value={typed ?? filled}
      maxLength={MOST_FILLED}
      autoComplete="off"
      autoCapitalize="off"
      spellCheck={false}
      onChange={({ target }: { target: { value: string } }) => typedOn(target.value)}
      onFocus={({ currentTarget }: { currentTarget: Selectable }) => single && currentTarget.select()}
      onBlur={take}
      onKeyDown={(event: KeyboardEvent<HTMLElement>) => {
        event.stopPropagation();
        stepped(event);
        if (event.key === 'Enter') event.currentTarget.blur();
        if (event.key === 'Escape') setTyped(undefined);
      }}
      className={classes(
        'pointer-events-auto absolute resize-none text-ink',
        single
          ? 'rounded-sm bg-transparent p-0 focus-visible:bg-chalk'
          : 'rounded-md border-2 border-dashed border-board bg-white px-1 focus-visible:border-solid',
      )}
      style={{
        ...placeOf(markBounds(seen), scale),
        fontSize: Math.max(11, mark.style.size * scale),
        textAlign: mark.style.align,
        ...(Field === 'textarea' && { minHeight: '2.3em', lineHeight: 1.1 }),
      }}
    />
  );
}

const fieldId = ({ id }: Mark) => `fill-${id}`;
