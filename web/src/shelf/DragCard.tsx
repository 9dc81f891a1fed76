import type { ReactNode } from 'react';
import type { PageDesk } from '../room/pageDesk';
import { useDragOut } from './useDragOut';

interface DragCardProps {
  desk: PageDesk;
  /** What it is called, where its content does not say so. */
  label?: string;
  /** What a tap does. */
  hint?: string;
  picture: ReactNode;
  children?: ReactNode;
  /** Puts it on the page, at a place of it where one is given. */
  onUse(at?: { x: number; y: number }): void;
}

/** Something of the shelf: a tap puts it in the middle of the page, a drag where one lets go. */
export function DragCard({ desk, label, hint, picture, children, onUse }: DragCardProps) {
  const { at, handlers } = useDragOut(desk, onUse);
  return (
    <>
      <button
        type="button"
        aria-label={label}
        title={hint ?? label}
        {...handlers}
        className="flex w-full touch-pan-y cursor-grab flex-col rounded-xl p-1.5 text-start select-none hover:bg-paper-dim"
      >
        {picture}
        {children}
      </button>
      {at && (
        <div
          aria-hidden
          className="pointer-events-none fixed z-50 w-36 -translate-x-1/2 -translate-y-1/2 opacity-80"
          style={{ left: at.x, top: at.y }}
        >
          {picture}
        </div>
      )}
    </>
  );
}
