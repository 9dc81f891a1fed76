import { classes } from './classes';

interface PaperChoiceProps<T extends string> {
  label: string;
  value: T;
  names: Readonly<Record<T, string>>;
  onChange(value: T): void;
}

/** One of several, on paper. */
export function PaperChoice<T extends string>({ label, value, names, onChange }: PaperChoiceProps<T>) {
  return (
    <div role="radiogroup" aria-label={label} className="flex flex-wrap gap-1">
      {(Object.keys(names) as T[]).map((one) => (
        <button
          key={one}
          type="button"
          role="radio"
          aria-checked={one === value}
          onClick={() => onChange(one)}
          className={classes(
            'min-h-11 grow rounded-xl border-2 px-2',
            one === value
              ? 'border-board bg-board font-bold text-paper'
              : 'border-paper-line hover:bg-paper-dim',
          )}
        >
          {names[one]}
        </button>
      ))}
    </div>
  );
}
