import type { ButtonHTMLAttributes, ReactNode, Ref } from 'react';
import { Tooltip } from 'radix-ui';
import { useState } from 'react';
import { Store } from '@doodla/core/client';
import { useStore } from '../store/useStore';
import { classes } from './classes';
import { useLongTouch } from './useLongTouch';

/** Milliseconds that a pointer rests before the first tooltip, and for how long the next ones come at once. */
const REST = 400;
const STAYS_AWAKE = 300;

/** Whether tooltips come at once, because one was shown a moment ago; of all buttons together. */
const awake = new Store(false);
let sleep: ReturnType<typeof setTimeout> | undefined;

function tooltipShown(open: boolean): void {
  clearTimeout(sleep);
  if (open) awake.set(true);
  else sleep = setTimeout(() => awake.set(false), STAYS_AWAKE);
}

interface IconButtonProps extends ButtonHTMLAttributes<HTMLButtonElement> {
  /** Accessible name and tooltip. */
  label: string;
  /** Key that does the same, as shown in the tooltip. */
  shortcut?: string;
  icon: ReactNode;
  /** Word under the icon. */
  caption?: string;
  active?: boolean;
  /** Where its tooltip is; `none` where there is no room for one. */
  tooltipSide?: 'left' | 'right' | 'top' | 'bottom' | 'none';
  ref?: Ref<HTMLButtonElement>;
}

/** A button on the board: an icon, often with a word under it, at least 44 px high. */
export function IconButton({
  label,
  shortcut,
  icon,
  caption,
  active,
  tooltipSide = 'top',
  className,
  ...rest
}: IconButtonProps) {
  const isAwake = useStore(awake);
  const [told, setTold] = useState(false);
  const show = (open: boolean) => {
    setTold(open);
    tooltipShown(open);
  };
  const longTouch = useLongTouch(show);
  const button = (
    <button
      type="button"
      aria-label={label}
      aria-pressed={active}
      {...(shortcut && { 'aria-keyshortcuts': shortcut })}
      {...rest}
      className={classes(
        'flex min-h-11 min-w-11 flex-col items-center justify-center rounded-xl px-1 text-xs leading-tight disabled:opacity-40',
        active ? 'bg-chalk font-bold text-board' : 'text-paper hover:bg-board-light',
        className,
      )}
    >
      {icon}
      {caption && <span className="mt-0.5 max-w-full text-center wrap-anywhere">{caption}</span>}
    </button>
  );
  if (tooltipSide === 'none') return button;
  return (
    <Tooltip.Provider delayDuration={isAwake ? 0 : REST} skipDelayDuration={0}>
      <Tooltip.Root open={told} onOpenChange={show}>
        <Tooltip.Trigger asChild {...longTouch}>
          {button}
        </Tooltip.Trigger>
        <Tooltip.Portal container={document.querySelector('main')}>
          <Tooltip.Content
            side={tooltipSide}
            sideOffset={6}
            className="z-50 rounded-lg bg-ink px-2 py-1 text-sm text-paper shadow-lg"
          >
            {label}
            {shortcut && <kbd className="ms-2 rounded bg-paper-dim px-1 font-sans text-ink">{shortcut}</kbd>}
          </Tooltip.Content>
        </Tooltip.Portal>
      </Tooltip.Root>
    </Tooltip.Provider>
  );
}
