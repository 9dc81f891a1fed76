import type { Focus, Rect } from '@doodla/core';
import { useRef } from 'react';
import type { KeyboardEvent, PointerEvent } from 'react';
import type { Stage } from '../stage/stage';
import type { PageDesk } from '../room/pageDesk';

/** How far an arrow key moves it, page units. */
const KEY_STEP = 12;
const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

type Change<F> = (start: F, dx: number, dy: number) => F;

/** Handlers for something by which a hand, or the arrow keys, change a focus; `dx`, `dy` in page units. */
export function useBoxDrag<F extends Focus>(
  focus: F,
  desk: PageDesk,
  stage: Stage,
  change: Change<F>,
): {
  onPointerDown(event: PointerEvent): void;
  onPointerMove(event: PointerEvent): void;
  onPointerUp(event: PointerEvent): void;
  onPointerCancel(event: PointerEvent): void;
  onKeyDown(event: KeyboardEvent): void;
} {
  const grip = useRef<{ x: number; y: number; start: F } | undefined>(undefined);
  const set = (changed: F, moving: boolean) => desk.classroom!.setScene({ focus: changed }, moving);
  const changedTo = (event: PointerEvent) => {
    const { x, y, start } = grip.current!;
    const { scale } = stage.view.get();
    return change(start, (event.clientX - x) / scale, (event.clientY - y) / scale);
  };
  const up = (event: PointerEvent) => {
    if (!grip.current) return;
    set(changedTo(event), false);
    grip.current = undefined;
  };
  return {
    onPointerDown: (event) => {
      event.stopPropagation();
      event.currentTarget.setPointerCapture(event.pointerId);
      grip.current = { x: event.clientX, y: event.clientY, start: focus };
    },
    onPointerMove: (event) => {
      if (grip.current) set(changedTo(event), true);
    },
    onPointerUp: up,
    onPointerCancel: up,
    onKeyDown: (event) => {
      const arrow = ARROWS[event.key];
      if (!arrow) return;
      event.preventDefault();
      event.stopPropagation();
      set(change(focus, arrow[0] * KEY_STEP, arrow[1] * KEY_STEP), false);
    },
  };
}

/** A focus that is moved as it is. */
export const moved = <F extends Focus>(focus: F, dx: number, dy: number): F => ({
  ...focus,
  x: focus.x + dx,
  y: focus.y + dy,
});

/** A focus whose lower right corner is moved; not smaller than `least`, page units. */
export const resized =
  (least: number, square: boolean) =>
  <F extends Focus>(focus: F, dx: number, dy: number): F => {
    const width = Math.max(least, focus.width + dx);
    const height = Math.max(least, focus.height + (square ? dx : dy));
    return { ...focus, width, height };
  };

/** A box of the page in the window, CSS pixels. */
export function onGlass({ x, y, width, height }: Rect, stage: Stage) {
  const view = stage.view.get();
  return {
    left: x * view.scale + view.x,
    top: y * view.scale + view.y,
    width: width * view.scale,
    height: height * view.scale,
  };
}
