import type { Focus, Rect } from '@doodla/core';
import type { KeyboardEvent, PointerEvent } from 'react';
import { takeArrow } from '../ui/arrowKeys';
import { useDrag } from '../ui/useDrag';
import type { Stage } from '../stage/stage';
import type { PageDesk } from '../room/pageDesk';

/** How far an arrow key moves it, page units. */
const KEY_STEP = 12;

/** Where in the window it was taken hold of, and what it was then. */
interface Grip<F> {
  x: number;
  y: number;
  start: F;
}

type Change<F> = (start: F, dx: number, dy: number) => F;

/** Handlers for something by which a hand, or the arrow keys, change a focus; `dx`, `dy` in page units. */
export function useBoxDrag<F extends Focus>(focus: F, desk: PageDesk, stage: Stage, change: Change<F>) {
  const set = (changed: F, moving: boolean) => desk.classroom!.setScene({ focus: changed }, moving);
  const changedTo = (event: PointerEvent, { x, y, start }: Grip<F>) => {
    const { scale } = stage.view.get();
    return change(start, (event.clientX - x) / scale, (event.clientY - y) / scale);
  };
  const drag = useDrag<Grip<F>, Element>({
    begin: (event) => {
      event.stopPropagation();
      return { x: event.clientX, y: event.clientY, start: focus };
    },
    move: (event, grip) => set(changedTo(event, grip), true),
    end: (event, grip) => set(changedTo(event, grip), false),
  });
  return {
    ...drag,
    onKeyDown(event: KeyboardEvent): void {
      const arrow = takeArrow(event);
      if (arrow) set(change(focus, arrow[0] * KEY_STEP, arrow[1] * KEY_STEP), false);
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
