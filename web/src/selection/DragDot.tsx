import type { PointerEvent } from 'react';
import { useRef } from 'react';
import type { MarkGround } from './markGround';
import { ARROWS } from '../ui/arrowKeys';

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
  const start = useRef<At | undefined>(undefined);
  const pageAt = (event: PointerEvent) => {
    const box = ground.host.getBoundingClientRect();
    return ground.toPage(event.clientX - box.left, event.clientY - box.top);
  };
  const keys = (event: { shiftKey: boolean; altKey: boolean }) => ({
    steady: event.shiftKey,
    centred: event.altKey,
  });
  return (
    <button
      type="button"
      aria-label={label}
      className="pointer-events-auto absolute -mt-4 -ml-4 grid size-8 touch-none place-items-center"
      style={{ ...style, cursor }}
      onKeyDown={(event) => {
        const [dx, dy] = ARROWS[event.key] ?? [0, 0];
        if (dx === 0 && dy === 0) return;
        event.preventDefault();
        event.stopPropagation();
        onArrow(dx, dy, keys(event));
      }}
      onPointerDown={(event) => {
        event.stopPropagation();
        event.currentTarget.setPointerCapture(event.pointerId);
        start.current = pageAt(event);
      }}
      onPointerMove={(event) => {
        if (start.current) onDrag(start.current, pageAt(event), keys(event));
      }}
      onPointerUp={(event) => {
        if (!start.current) return;
        const from = start.current;
        start.current = undefined;
        onDrop(from, pageAt(event), keys(event));
        onEnd();
      }}
      onPointerCancel={() => {
        start.current = undefined;
        onEnd();
      }}
    >
      <span className={`size-3.5 border-2 border-chalk-deep bg-paper ${round ? 'rounded-full' : ''}`} />
    </button>
  );
}
