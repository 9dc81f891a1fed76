import type { PointerEvent } from 'react';
import { useState } from 'react';

/** What is done with something while a pointer drags it. */
export interface Drag<Grip, Of extends Element> {
  /** Takes hold of it. Returns what has to be known of that until it is let go. */
  begin(event: PointerEvent<Of>): Grip;
  move(event: PointerEvent<Of>, grip: Grip): void;
  /** Lets go; `dropped` is false where the pointer was taken away before it came up. */
  end?(event: PointerEvent<Of>, grip: Grip, dropped: boolean): void;
}

/** What one hand holds. */
interface Hand<Grip> {
  held?: { pointer: number; grip: Grip } | undefined;
}

/**
 * Handlers by which one pointer at a time drags something, wherever it goes; of an element with `touch-none`.
 * Our own, since the general library for it takes 7.2 kB (gzip, measured) of the 200 kB that a student may be sent.
 */
export function useDrag<Grip, Of extends Element = HTMLElement>(drag: Drag<Grip, Of>) {
  const [hand] = useState<Hand<Grip>>(() => ({}));
  return dragHandlers(hand, drag);
}

/** The same for a hand of one's own. */
export function dragHandlers<Grip, Of extends Element>(hand: Hand<Grip>, drag: Drag<Grip, Of>) {
  const letGo = (dropped: boolean) => (event: PointerEvent<Of>) => {
    const { held } = hand;
    if (held?.pointer !== event.pointerId) return;
    hand.held = undefined;
    drag.end?.(event, held.grip, dropped);
  };
  return {
    onPointerDown(event: PointerEvent<Of>): void {
      if (hand.held) return;
      event.currentTarget.setPointerCapture(event.pointerId);
      hand.held = { pointer: event.pointerId, grip: drag.begin(event) };
    },
    onPointerMove(event: PointerEvent<Of>): void {
      if (hand.held?.pointer === event.pointerId) drag.move(event, hand.held.grip);
    },
    onPointerUp: letGo(true),
    onPointerCancel: letGo(false),
  };
}
