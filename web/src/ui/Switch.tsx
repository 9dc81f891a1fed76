import { classes } from './classes';

interface SwitchProps {
  label: string;
  checked: boolean;
  onChange(checked: boolean): void;
}

/** Something that is on or off, on the board. */
export function Switch({ label, checked, onChange }: SwitchProps) {
  return (
    <button
      type="button"
      role="switch"
      aria-checked={checked}
      onClick={() => onChange(!checked)}
      className="flex min-h-11 w-full items-center justify-between gap-3 rounded-xl text-start text-sm"
    >
      {label}
      <span
        aria-hidden
        className={classes(
          'flex h-7 w-12 shrink-0 rounded-full border-2 border-board-line p-0.5',
          checked ? 'justify-end bg-chalk' : 'bg-board-light',
        )}
      >
        <span className={classes('size-5 rounded-full', checked ? 'bg-board' : 'bg-paper')} />
      </span>
    </button>
  );
}
