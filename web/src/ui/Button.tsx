import type { ButtonHTMLAttributes, ReactNode } from 'react';
import { classes } from './classes';

type Look = 'main' | 'plain' | 'alarm' | 'onBoard';

const LOOKS: Record<Look, string> = {
  main: 'bg-board text-paper hover:bg-board-light border-board',
  plain: 'bg-paper text-ink hover:bg-paper-dim border-paper-line',
  alarm: 'bg-alarm text-white hover:brightness-110 border-alarm',
  onBoard: 'bg-board-light text-paper hover:bg-board-hover border-transparent',
};

interface ButtonProps extends ButtonHTMLAttributes<HTMLButtonElement> {
  look?: Look;
  icon?: ReactNode;
}

export function Button({ look = 'plain', icon, className, children, ...rest }: ButtonProps) {
  return (
    <button
      type="button"
      {...rest}
      className={classes(
        'inline-flex min-h-11 items-center justify-center gap-2 rounded-xl border-2 px-4 text-base font-bold disabled:opacity-50',
        LOOKS[look],
        className,
      )}
    >
      {icon}
      {children}
    </button>
  );
}
