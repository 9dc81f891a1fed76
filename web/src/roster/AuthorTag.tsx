import { hitBySweep } from '@doodla/core';
import type { Mark } from '@doodla/core';
import { useEffect, useState } from 'react';
import type { PageDesk } from '../room/pageDesk';
import type { Stage } from '../stage/stage';
import { NameTag } from '../ui/NameTag';

/** So long a pointer rests before it is told whose mark lies there, milliseconds; so far it may shake, pixels. */
const REST_MS = 600;
const SHAKE = 8;
/** How near a mark has to be, pixels. */
const NEAR = 6;

interface Shown {
  mark: Mark;
  x: number;
  y: number;
}

/** Says whose a mark is where a pointer or finger rests on it. */
export default function AuthorTag({ desk, stage }: { desk: PageDesk; stage: Stage }) {
  const [shown, setShown] = useState<Shown>();
  useEffect(() => watchRest(stage.host, (at) => setShown(at && shownAt(desk, stage, at))), [desk, stage]);
  if (!shown) return null;
  const { mark, x, y } = shown;
  const person = desk.room.personOf(mark.author);
  return (
    <div
      role="status"
      className="absolute flex -translate-x-1/2 -translate-y-full items-center gap-2 rounded-full bg-paper py-0.5 ps-0.5 pe-3 text-sm font-bold text-ink shadow-xl"
      style={{ left: x, top: y - 10 }}
    >
      {person && <NameTag {...person} />}
      <span className={person ? '' : 'ps-2 leading-8'}>{desk.room.makerOf(mark)}</span>
    </div>
  );
}

/** The highest mark at a place of the window. */
function shownAt(desk: PageDesk, stage: Stage, { x, y }: { x: number; y: number }): Shown | undefined {
  const page = desk.pageId.get();
  const marks = page === undefined ? undefined : desk.layers.at(-1)!.on(page).all();
  const at = stage.toPage(x, y);
  const near = NEAR / stage.view.get().scale;
  const mark = marks?.findLast((one) => hitBySweep(one, at.x, at.y, at.x, at.y, near));
  return mark && { mark, x, y };
}

/** Tells where a mouse, or a finger that is down, rests, and when it goes on. Returns what ends that. */
function watchRest(
  host: HTMLElement,
  onRest: (at: { x: number; y: number } | undefined) => void,
): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  let from = { x: 0, y: 0 };
  const go = () => {
    clearTimeout(timer);
    onRest(undefined);
  };
  const move = (event: PointerEvent) => {
    const { left, top } = host.getBoundingClientRect();
    const at = { x: event.clientX - left, y: event.clientY - top };
    const isHovering = event.pointerType !== 'touch' && event.buttons === 0;
    const isResting = event.type === 'pointermove' && Math.hypot(at.x - from.x, at.y - from.y) < SHAKE;
    if (isResting) return;
    from = at;
    go();
    if (isHovering || (event.pointerType === 'touch' && event.type === 'pointerdown'))
      timer = setTimeout(() => onRest(at), REST_MS);
  };
  const events = {
    pointermove: move,
    pointerdown: move,
    pointerup: go,
    pointercancel: go,
    pointerleave: go,
    wheel: go,
  };
  for (const [name, act] of Object.entries(events))
    host.addEventListener(name, act as EventListener, { passive: true });
  return () => {
    clearTimeout(timer);
    for (const [name, act] of Object.entries(events)) host.removeEventListener(name, act as EventListener);
  };
}
