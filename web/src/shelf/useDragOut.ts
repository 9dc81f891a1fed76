import type { MouseEvent } from 'react';
import { useRef, useState } from 'react';
import type { PageDesk } from '../room/pageDesk';
import { useDrag } from '../ui/useDrag';

interface Point {
  x: number;
  y: number;
}

/** So far a pointer goes before it drags, CSS pixels. */
const DISTANCE = 8;

/**
 * Handlers of something that is tapped, or dragged onto the page; `put` is told the place of the page, or none after a
 * tap. `at` is where in the browser's window it is while it is dragged.
 */
export function useDragOut(desk: PageDesk, put: (at?: Point) => void) {
  const [at, setAt] = useState<Point>();
  const dragged = useRef(false);
  const handlers = useDrag<Point>({
    begin: ({ clientX, clientY }) => {
      dragged.current = false;
      return { x: clientX, y: clientY };
    },
    move: ({ clientX, clientY }, from) => {
      dragged.current ||= Math.hypot(clientX - from.x, clientY - from.y) > DISTANCE;
      if (dragged.current) setAt({ x: clientX, y: clientY });
    },
    end: ({ clientX, clientY }, _, dropped) => {
      setAt(undefined);
      if (!dragged.current || !dropped) return;
      const place = placeUnder(desk, { x: clientX, y: clientY });
      if (place) put(place);
    },
  });
  const onClick = (event: MouseEvent) => {
    // A drag that ends on what it began with is a click too; one by a key is no drag.
    if (event.detail !== 0 && dragged.current) return;
    put();
  };
  return { at, handlers: { ...handlers, onClick } };
}

/** The place of the page that is seen at a point of the window; undefined where something else is there. */
function placeUnder(desk: PageDesk, { x, y }: Point): Point | undefined {
  const glass = desk.glass.get();
  if (!glass || desk.room.dropPlace.get()?.covers({ x, y })) return undefined;
  const { left, top, right, bottom } = glass.host.getBoundingClientRect();
  if (x < left || x > right || y < top || y > bottom) return undefined;
  return glass.toPage(x - left, y - top);
}
