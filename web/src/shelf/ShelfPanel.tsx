import { X } from 'lucide-react';
import { Tabs } from 'radix-ui';
import type { RefObject } from 'react';
import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import type { ShelfPart } from '../desk/shelf';
import type { PageDesk } from '../room/pageDesk';
import type { Stage } from '../stage/stage';
import { useStore } from '../store/useStore';
import { classes } from '../ui/classes';
import { windowRoom } from '../ui/windowRoom';
import { t } from '../words';
import { keepMarks, keepPages } from './keepOnShelf';
import { PicturesPart } from './PicturesPart';
import { ThingsPart } from './ThingsPart';

const TemplatesPart = lazy(() => import('./TemplatesPart'));

const PARTS: readonly { part: ShelfPart; name: string }[] = [
  { part: 'own', name: t('shelf.mine') },
  { part: 'school', name: t('shelf.school2') },
  { part: 'pictures', name: t('shelf.pictures') },
  { part: 'templates', name: t('shelf.templates') },
];

interface ShelfPanelProps {
  desk: PageDesk;
  stage: Stage;
  side: 'left' | 'right';
  /** Whether the pages are shown at that side. */
  besideStrip: boolean;
}

/** The shelf beside the page: what is put there and taken from there, by dragging or by a tap. */
export default function ShelfPanel({ desk, stage, side, besideStrip }: ShelfPanelProps) {
  const { room } = desk;
  const columns = useStore(stage.arrangement) === 'columns';
  const { compact } = useStore(windowRoom);
  const open = useStore(room.shelf);
  const panel = useRef<HTMLElement>(null);
  const over = useDropHere(desk, panel);
  useClosingForTalk(desk);
  // A display writes as its teacher, but has no shelf of its own.
  const parts = room.device ? PARTS.filter(({ part }) => part !== 'own' && part !== 'school') : PARTS;
  const value = parts.find(({ part }) => part === open)?.part ?? parts[0]!.part;
  const close = () => {
    room.shelf.set(undefined);
    // Whoever was in it by the keyboard is on the page then, not nowhere.
    desk.glass.get()?.host.focus();
  };
  return (
    <section
      ref={panel}
      aria-label={t('shelf.shelf')}
      data-bar={compact ? undefined : 'shelf'}
      data-side={side}
      onKeyDown={(event) => {
        if (event.key === 'Escape' && !event.defaultPrevented) close();
      }}
      style={compact ? undefined : { [side]: edge(columns, besideStrip) }}
      className={classes(
        'absolute top-18 bottom-17 z-30 flex w-96 max-w-[calc(100vw-1rem)] flex-col rounded-2xl bg-paper shadow-xl forced-colors:border-2 compact:inset-x-2 compact:top-15 compact:bottom-28 compact:w-auto',
        over && 'outline-4 outline-chalk',
      )}
    >
      <Tabs.Root
        value={value}
        onValueChange={(part) => room.shelf.set(part as ShelfPart)}
        className="flex min-h-0 grow flex-col"
      >
        <div className="flex items-start gap-1 p-2">
          <Tabs.List aria-label={t('shelf.shelf')} className="flex grow flex-wrap gap-1">
            {parts.map(({ part, name }) => (
              <Tabs.Trigger
                key={part}
                value={part}
                className="min-h-11 rounded-xl px-2 font-bold data-[state=active]:bg-board data-[state=active]:text-paper"
              >
                {name}
              </Tabs.Trigger>
            ))}
          </Tabs.List>
          <button
            type="button"
            aria-label={t('shelf.close')}
            onClick={close}
            className="grid size-11 shrink-0 place-items-center rounded-xl hover:bg-paper-dim"
          >
            <X aria-hidden />
          </button>
        </div>
        {parts.map(({ part }) => (
          <Tabs.Content
            key={part}
            value={part}
            className="flex min-h-0 grow flex-col data-[state=inactive]:hidden"
          >
            <Part part={part} desk={desk} />
          </Tabs.Content>
        ))}
      </Tabs.Root>
    </section>
  );
}

function Part({ part, desk }: { part: ShelfPart; desk: PageDesk }) {
  if (part === 'pictures') return <PicturesPart desk={desk} />;
  if (part === 'templates')
    return (
      <Suspense fallback={<p className="px-3">{t('common.opening')}</p>}>
        <TemplatesPart desk={desk} />
      </Suspense>
    );
  return <ThingsPart desk={desk} of={part} />;
}

/** How far from the window's edge it begins: past a column of bars, past the pages. */
const edge = (columns: boolean, besideStrip: boolean) =>
  `${(columns ? 12 : 0) + (besideStrip ? 11 : 0) + 0.5}rem`;

/** What the class says lies at the same side, so one of both is open. */
function useClosingForTalk({ room }: PageDesk): void {
  useEffect(() => {
    room.chat?.open.set(false);
    return room.chat?.open.subscribe(() => {
      if (room.chat!.open.get()) room.shelf.set(undefined);
    });
  }, [room]);
}

/** Takes marks and pages that are dropped on it. Returns whether something is held over it. */
function useDropHere(desk: PageDesk, panel: RefObject<HTMLElement | null>): boolean {
  const [over, setOver] = useState(false);
  const { room } = desk;
  useEffect(() => {
    if (room.device) return;
    const covers = ({ x, y }: { x: number; y: number }) => {
      const box = panel.current?.getBoundingClientRect();
      return box !== undefined && x >= box.left && x <= box.right && y >= box.top && y <= box.bottom;
    };
    const show = () => room.shelf.set('own');
    room.dropPlace.set({
      covers,
      takeMarks: () => {
        show();
        void keepMarks(desk);
      },
      takePage: (page) => {
        show();
        void keepPages(desk, [page]);
      },
    });
    // What a hand drags out of the page is told to the page alone; here it is only seen to come.
    const follow = ({ buttons, clientX: x, clientY: y, target }: PointerEvent) => {
      const comes = buttons > 0 && !panel.current?.contains(target as Node);
      setOver(comes && desk.selection.ids.get().size > 0 && covers({ x, y }));
    };
    const stop = () => setOver(false);
    window.addEventListener('pointermove', follow, true);
    window.addEventListener('pointerup', stop, true);
    return () => {
      room.dropPlace.set(undefined);
      window.removeEventListener('pointermove', follow, true);
      window.removeEventListener('pointerup', stop, true);
    };
  }, [desk, panel, room]);
  return over;
}
