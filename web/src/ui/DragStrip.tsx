import { GripHorizontal } from 'lucide-react';
import type { KeyboardEvent } from 'react';
import { takeArrow } from './arrowKeys';
import { useDrag } from './useDrag';

/** How far an arrow key moves it, CSS pixels. */
const KEY_STEP = 24;

interface DragStripProps {
  label: string;
  hint: string;
  /** Told where the panel goes, CSS pixels within what it lies in. */
  onPlace(place: { x: number; y: number }): void;
}

/** The upper edge of a panel over the page, by which it is put where it is not in the way. */
export function DragStrip({ label, hint, onPlace }: DragStripProps) {
  const drag = useDrag({
    begin: (event) => {
      const box = event.currentTarget.parentElement!.getBoundingClientRect();
      return { x: event.clientX - box.left, y: event.clientY - box.top };
    },
    move: (event, grip) => {
      const room = event.currentTarget.parentElement!.offsetParent!.getBoundingClientRect();
      onPlace({
        x: Math.max(0, event.clientX - room.left - grip.x),
        y: Math.max(0, event.clientY - room.top - grip.y),
      });
    },
  });
  const byKey = (event: KeyboardEvent<HTMLElement>) => {
    const step = takeArrow(event);
    if (!step) return;
    const panel = event.currentTarget.parentElement!.getBoundingClientRect();
    const room = event.currentTarget.parentElement!.offsetParent!.getBoundingClientRect();
    onPlace({
      x: Math.max(0, panel.left - room.left + step[0] * KEY_STEP),
      y: Math.max(0, panel.top - room.top + step[1] * KEY_STEP),
    });
  };
  return (
    <button
      type="button"
      aria-label={label}
      title={hint}
      onKeyDown={byKey}
      {...drag}
      className="grid h-6 w-full cursor-grab touch-none place-items-center opacity-60"
    >
      <GripHorizontal aria-hidden size={20} />
    </button>
  );
}
