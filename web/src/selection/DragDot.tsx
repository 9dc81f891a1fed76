import type { PointerEvent } from 'react';
import { takeArrow } from '../ui/arrowKeys';
import { useDrag } from '../ui/useDrag';
import type { MarkGround } from './markGround';

/** A place on the page. */
export interface At {
  x: number;
  y: number;
}

/** What is held down while a handle is dragged. */
export interface DragKeys {
  steady: boolean;
  centred: boolean;
}

export interface DragDotProps {
  label: string;
  cursor: string;
  round?: boolean;
  style: React.CSSProperties;
  ground: MarkGround;
  onDrag(start: At, now: At, keys: DragKeys): void;
  onDrop(start: At, now: At, keys: DragKeys): void;
  /** What `onDrag` has shown is over; told after a drop as well. */
  onEnd(): void;
  /** An arrow key, -1 to 1 each way. */
  onArrow(dx: number, dy: number, keys: DragKeys): void;
}

/** A handle that is dragged, or moved by the arrow keys. */
export function DragDot({
  label,
  cursor,
  round,
  style,
  ground,
  onDrag,
  onDrop,
  onEnd,
  onArrow,
}: DragDotProps) {
  const pageAt = (event: PointerEvent) => {
    const box = ground.host.getBoundingClientRect();
    return ground.toPage(event.clientX - box.left, event.clientY - box.top);
  };
  const keys = (event: { shiftKey: boolean; altKey: boolean }) => ({
    steady: event.shiftKey,
    centred: event.altKey,
  });
  const drag = useDrag<At>({
    begin: (event) => {
      event.stopPropagation();
      return pageAt(event);
    },
    move: (event, start) => onDrag(start, pageAt(event), keys(event)),
    end: (event, start, dropped) => {
      if (dropped) onDrop(start, pageAt(event), keys(event));
      onEnd();
    },
  });
  return (
    <button
      type="button"
      aria-label={label}
      className="pointer-events-auto absolute -mt-4 -ml-4 grid size-8 touch-none place-items-center"
      style={{ ...style, cursor }}
      onKeyDown={(event) => {
        const arrow = takeArrow(event);
        if (arrow) onArrow(...arrow, keys(event));
      }}
      {...drag}
    >
      <span className={`size-3.5 border-2 border-chalk-deep bg-paper ${round ? 'rounded-full' : ''}`} />
    </button>
  );
}
