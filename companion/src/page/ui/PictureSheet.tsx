import type { Rect } from '@doodla/core';
import { rectFromCorners } from '@doodla/core';
import { useStore } from '@web/store/useStore';
import { Store } from '@doodla/core/client';
import { useDrag } from '@web/ui/useDrag';
import { Crop, Monitor, ScrollText } from 'lucide-react';
import type { ReactNode } from 'react';
import type { KeyboardEvent } from 'react';
import { useEffect, useRef, useState } from 'react';
import type { Pictured } from '../../shared/messages';
import { ask } from '../../shared/messages';
import { say } from '../../words';
import type { Tab } from '../tab';
import { byArrows } from './arrows';
import { pictureInSight, pictureOfPage } from '../wholePage';

/** What is being pictured: how much of the page is done, or that a part is to be drawn. */
export type Picturing = { is: 'page'; done: number; isStopped: boolean } | { is: 'region' };

/** What is being pictured now, if anything. */
export const picturing = new Store<Picturing | undefined>(undefined);

/** Takes pictures of the page. */
export function PictureSheet({ tab, onDone }: { tab: Tab; onDone(): void }) {
  const start = (take: () => void) => () => {
    onDone();
    take();
  };
  return (
    <>
      <Choice icon={<Monitor aria-hidden />} onClick={start(() => void show(tab, () => pictureInSight(tab)))}>
        {say('pictureSight')}
      </Choice>
      <Choice icon={<Crop aria-hidden />} onClick={start(() => picturing.set({ is: 'region' }))}>
        {say('pictureRegion')}
      </Choice>
      <Choice icon={<ScrollText aria-hidden />} onClick={start(() => void showPage(tab))}>
        {say('picturePage')}
      </Choice>
    </>
  );
}

function Choice({ icon, children, onClick }: { icon: ReactNode; children: string; onClick(): void }) {
  return (
    <button
      type="button"
      onClick={onClick}
      className="flex min-h-11 items-center gap-3 rounded-xl bg-board-light px-3 text-start hover:bg-board-hover"
    >
      {icon}
      {children}
    </button>
  );
}

async function show(tab: Tab, take: () => Promise<Pictured | undefined>): Promise<void> {
  try {
    const pictured = await take();
    if (pictured) await ask({ ask: 'show', pictured });
  } catch {
    // Too large to be handed over, or the extension was just updated.
    tab.desk.tellProblem(say('noPicture'));
  }
}

async function showPage(tab: Tab): Promise<void> {
  picturing.set({ is: 'page', done: 0, isStopped: false });
  await show(tab, () =>
    pictureOfPage(tab, (done) => {
      const now = picturing.get();
      if (now?.is !== 'page' || now.isStopped) return false;
      picturing.set({ ...now, done });
      return true;
    }),
  );
  picturing.set(undefined);
}

/** What lies over the page while it is pictured: how far that is, or the part that is drawn. */
export function PicturingView({ tab }: { tab: Tab }) {
  const now = useStore(picturing);
  if (now?.is === 'region') return <Region tab={tab} />;
  if (now?.is !== 'page') return null;
  return (
    <div className="pointer-events-auto fixed start-1/2 top-6 flex -translate-x-1/2 items-center gap-3 rounded-2xl bg-paper p-3 text-ink shadow-xl">
      <progress max={1} value={now.done} aria-label={say('picturePage')} />
      <button
        type="button"
        className="min-h-11 rounded-xl bg-board px-3 font-bold text-paper"
        onClick={() => picturing.set({ ...now, isStopped: true })}
      >
        {say('cancel')}
      </button>
    </div>
  );
}

/** Least side of a part that is meant as one, CSS pixels. */
const LEAST = 8;

/** The part with which one begins who chooses it by keys. */
const middleOfWindow = (): Rect => ({
  x: innerWidth / 4,
  y: innerHeight / 4,
  width: innerWidth / 2,
  height: innerHeight / 2,
});

/** Draws the part; by keys, arrows move it, with Control they make it larger or smaller, Enter takes it and Escape does not. */
function Region({ tab }: { tab: Tab }) {
  const [box, setBox] = useState<Rect>();
  const host = useRef<HTMLDivElement>(null);
  useEffect(() => host.current?.focus(), []);
  const take = (part: Rect) => {
    picturing.set(undefined);
    if (part.width > LEAST && part.height > LEAST) void show(tab, () => pictureInSight(tab, part));
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const before = box ?? middleOfWindow();
    if (event.key === 'Escape') picturing.set(undefined);
    else if (event.key === 'Enter') take(before);
    else byArrows((dx, dy) => setBox(stepped(before, dx, dy, event.ctrlKey))).onKeyDown(event);
  };
  const drag = useDrag({
    begin: (event) => ({ x: event.clientX, y: event.clientY }),
    move: (event, from) => setBox(rectFromCorners(from.x, from.y, event.clientX, event.clientY)),
    end: (event, from, dropped) => {
      if (dropped) take(rectFromCorners(from.x, from.y, event.clientX, event.clientY));
      else picturing.set(undefined);
    },
  });
  return (
    <div
      className="pointer-events-auto fixed inset-0 cursor-crosshair touch-none"
      ref={host}
      tabIndex={-1}
      role="application"
      aria-label={say('regionHow')}
      data-testid="region"
      data-arrows="all"
      onKeyDown={onKeyDown}
      {...drag}
    >
      {box && (
        <div
          className="absolute border-2 border-dashed border-chalk outline-[9999px] outline-[#05100c99]"
          style={{ left: box.x, top: box.y, width: box.width, height: box.height, outlineStyle: 'solid' }}
        />
      )}
    </div>
  );
}

function stepped({ x, y, width, height }: Rect, dx: number, dy: number, isSized: boolean): Rect {
  if (!isSized) return { x: x + dx, y: y + dy, width, height };
  return { x, y, width: Math.max(LEAST, width + dx), height: Math.max(LEAST, height + dy) };
}
