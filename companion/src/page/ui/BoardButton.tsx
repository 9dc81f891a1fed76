import { classes } from '@web/ui/classes';
import type { ReactNode } from 'react';

interface BoardButtonProps {
  label: string;
  icon: ReactNode;
  /** Word under the icon. */
  caption?: string;
  /** Key that does the same. */
  keyName?: string;
  active?: boolean;
  expanded?: boolean;
  disabled?: boolean;
  onClick(): void;
}

/** A button on the board: an icon, often with a word under it. */
export function BoardButton(props: BoardButtonProps) {
  const { label, icon, caption, keyName, active, expanded, disabled, onClick } = props;
  return (
    <button
      type="button"
      aria-label={label}
      title={keyName === undefined ? label : `${label} (${keyName})`}
      aria-pressed={active}
      aria-expanded={expanded}
      aria-keyshortcuts={keyName}
      disabled={disabled}
      onClick={onClick}
      className={classes(
        'flex min-h-11 min-w-0 flex-col items-center justify-center rounded-xl px-0.5 text-xs leading-tight disabled:opacity-40',
        active ? 'bg-chalk font-bold text-board' : 'text-paper hover:bg-board-light',
        expanded && 'bg-board-hover',
      )}
    >
      {icon}
      {caption !== undefined && (
        <span className="mt-0.5 max-w-full text-center wrap-anywhere">{caption}</span>
      )}
    </button>
  );
}
