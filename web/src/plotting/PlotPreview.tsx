import type { Drawing } from '@doodla/core';
import type { Window } from '@doodla/core/plots';
import { useEffect, useRef } from 'react';
import { t } from '../words';
import { DrawingView } from './DrawingView';
import { moved, zoomed } from './plotWindow';

interface PlotPreviewProps {
  drawing: Drawing | undefined;
  window: Window;
  onChange(window: Window): void;
}

const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};
/** Part of the window that an arrow key moves it by. */
const STEP = 1 / 12;
const WHEEL_ZOOM = 0.0016;

/** The graph as it will be: dragged it is moved, the wheel zooms, arrow keys and + and - do the same. */
export function PlotPreview({ drawing, window, onChange }: PlotPreviewProps) {
  const box = useRef<HTMLDivElement>(null);
  const hold = useRef<{ x: number; y: number; window: Window }>(undefined);
  const now = useRef({ window, onChange });
  useEffect(() => {
    now.current = { window, onChange };
  });
  useEffect(() => {
    const host = box.current!;
    // React listens to the wheel passively, and the sheet behind would scroll.
    const wheel = (event: WheelEvent) => {
      event.preventDefault();
      const { left, bottom, width, height } = host.getBoundingClientRect();
      const at = [(event.clientX - left) / width, (bottom - event.clientY) / height] as const;
      now.current.onChange(zoomed(now.current.window, Math.exp(event.deltaY * WHEEL_ZOOM), ...at));
    };
    host.addEventListener('wheel', wheel, { passive: false });
    return () => host.removeEventListener('wheel', wheel);
  }, []);
  return (
    <div
      ref={box}
      role="application"
      tabIndex={0}
      aria-label={t('plots.preview')}
      data-testid="plot-preview"
      className="aspect-4/3 w-full cursor-grab touch-none overflow-hidden rounded-xl border-2 border-paper-line bg-white focus-visible:outline-3 active:cursor-grabbing"
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        hold.current = { x: event.clientX, y: event.clientY, window };
      }}
      onPointerMove={(event) => {
        const held = hold.current;
        if (!held) return;
        const { width, height } = event.currentTarget.getBoundingClientRect();
        onChange(moved(held.window, (held.x - event.clientX) / width, (event.clientY - held.y) / height));
      }}
      onPointerUp={() => (hold.current = undefined)}
      onPointerCancel={() => (hold.current = undefined)}
      onKeyDown={(event) => {
        const arrow = ARROWS[event.key];
        if (arrow) onChange(moved(window, arrow[0] * STEP, arrow[1] * STEP));
        else if (event.key === '+') onChange(zoomed(window, 1 / 1.25));
        else if (event.key === '-') onChange(zoomed(window, 1.25));
        else return;
        event.preventDefault();
        event.stopPropagation();
      }}
    >
      {drawing && <DrawingView drawing={drawing} />}
    </div>
  );
}
