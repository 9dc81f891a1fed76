import type { MouseEvent, PointerEvent } from 'react';
import { useRef } from 'react';

/** So long a finger rests to ask what a button is, and so long the answer stays, milliseconds. */
const LONG_MS = 500;
const STAYS_MS = 1500;

/** A finger that rests on a button is told what it is called, as a pointer over it is; then letting go does nothing. */
export function useLongTouch(tell: (shown: boolean) => void) {
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);
  const asked = useRef(false);
  const end = () => {
    clearTimeout(timer.current);
    if (asked.current) timer.current = setTimeout(() => tell(false), STAYS_MS);
  };
  return {
    onPointerDown({ pointerType }: PointerEvent) {
      asked.current = false;
      clearTimeout(timer.current);
      if (pointerType !== 'touch') return;
      timer.current = setTimeout(() => {
        asked.current = true;
        tell(true);
      }, LONG_MS);
    },
    onPointerUp: end,
    onPointerCancel: end,
    onClickCapture(event: MouseEvent) {
      if (!asked.current) return;
      asked.current = false;
      event.preventDefault();
      event.stopPropagation();
    },
    onContextMenu(event: MouseEvent) {
      if (asked.current) event.preventDefault();
    },
  };
}
