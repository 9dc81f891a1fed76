import type { ReactNode } from 'react';
import { classes } from './classes';

interface ChoiceProps<T extends string> {
  label: string;
  value: T;
  options: readonly { value: T; name: string; face?: ReactNode }[];
  columns?: 2 | 3 | 4 | 5;
  onChange(value: T): void;
}

const COLUMNS = { 2: 'grid-cols-2', 3: 'grid-cols-3', 4: 'grid-cols-4', 5: 'grid-cols-5' };

/** One of several, on the board. */
export function Choice<T extends string>({ label, value, options, columns = 4, onChange }: ChoiceProps<T>) {
  return (
    <div role="radiogroup" aria-label={label} className={classes('grid gap-1', COLUMNS[columns])}>
      {options.map((option) => (
        <button
          key={option.value}
          type="button"
          role="radio"
          aria-checked={option.value === value}
          aria-label={option.name}
          title={option.name}
          onClick={() => onChange(option.value)}
          className={classes(
            'grid min-h-11 min-w-11 place-items-center rounded-xl border-2 px-1 text-sm',
            option.value === value
              ? 'border-chalk bg-board-hover font-bold'
              : 'border-transparent hover:bg-board-light',
          )}
        >
          {option.face ?? option.name}
        </button>
      ))}
    </div>
  );
}
