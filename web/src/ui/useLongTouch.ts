import type { MouseEvent, PointerEvent } from 'react';
import { useState } from 'react';
import { afterRest } from './afterRest';

/** So long a finger rests to ask what a button is, and so long the answer stays, milliseconds. */
const LONG_MS = 500;
const STAYS_MS = 1500;

/** A finger that rests on a button is told what it is called, as a pointer over it is; then letting go does nothing. */
export function useLongTouch(tell: (shown: boolean) => void) {
  return useState(() => longTouchHandlers(tell))[0];
}

export function longTouchHandlers(tell: (shown: boolean) => void) {
  let endWait: (() => void) | undefined;
  let downAt = 0;
  let asked = false;
  const end = ({ timeStamp }: Pick<PointerEvent, 'timeStamp'>) => {
    endWait?.();
    if (!asked) return;
    if (timeStamp - downAt >= LONG_MS) {
      endWait = afterRest(STAYS_MS, () => tell(false));
      return;
    }
    // It was a tap, and is heard late.
    asked = false;
    tell(false);
  };
  return {
    onPointerDown({ pointerType, timeStamp }: Pick<PointerEvent, 'pointerType' | 'timeStamp'>) {
      asked = false;
      downAt = timeStamp;
      endWait?.();
      if (pointerType !== 'touch') return;
      endWait = afterRest(LONG_MS, () => {
        asked = true;
        tell(true);
      });
    },
    onPointerUp: end,
    onPointerCancel: end,
    onClickCapture(event: Pick<MouseEvent, 'preventDefault' | 'stopPropagation'>) {
      if (!asked) return;
      asked = false;
      event.preventDefault();
      event.stopPropagation();
    },
    onContextMenu(event: Pick<MouseEvent, 'preventDefault'>) {
      if (asked) event.preventDefault();
    },
  };
}
