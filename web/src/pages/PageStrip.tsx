import type { DragEndEvent } from '@dnd-kit/core';
import {
  closestCenter,
  DndContext,
  DragOverlay,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import type { Page } from '@doodla/core';
import { useEffect, useRef, useState } from 'react';
import { useStore } from '../store/useStore';
import { classes } from '../ui/classes';
import { useNear } from '../ui/useNear';
import type { PageDesk } from '../room/pageDesk';
import { PageMenu } from './PageMenu';
import type { Stage } from '../stage/stage';
import { drawThumbnail } from '../room/thumbnail';
import { t } from '../words';

const WIDTH = 128;
/** A page is dragged only after the pointer has gone so far; pixels. */
const DRAG_DISTANCE = 8;

/** Enter turns to a page, so a page is lifted by another key. */
const LIFTING = { start: ['Space'], cancel: ['Escape'], end: ['Space', 'Enter', 'Tab'] };

interface PageStripProps {
  desk: PageDesk;
  stage: Stage;
  side: 'left' | 'right';
}

/** All pages as small pictures, to turn to, to reorder by dragging, to add and to take away. */
export default function PageStrip({ desk, stage, side }: PageStripProps) {
  const columns = useStore(stage.arrangement) === 'columns';
  const pages = useStore(desk.pages);
  const current = useStore(desk.pageId);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: DRAG_DISTANCE } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates, keyboardCodes: LIFTING }),
  );
  const [dragged, setDragged] = useState<Page>();
  const drop = ({ active, over, activatorEvent, delta }: DragEndEvent) => {
    setDragged(undefined);
    const place = desk.room.dropPlace.get();
    if (place && activatorEvent instanceof PointerEvent) {
      const at = { x: activatorEvent.clientX + delta.x, y: activatorEvent.clientY + delta.y };
      if (place.covers(at)) return place.takePage(String(active.id));
    }
    if (!over || active.id === over.id) return;
    const to = pages.findIndex((page) => page.id === over.id);
    desk.pageActions.moveTo(String(active.id), to);
  };
  return (
    <nav
      aria-label={t('pages.pages')}
      className={classes(
        'absolute top-0 bottom-0 z-20 w-44 overflow-y-auto border-x-2 border-board-line bg-board p-3 pb-20 shadow-xl compact:pb-28',
        columns
          ? side === 'left'
            ? 'left-48'
            : 'right-48'
          : side === 'left'
            ? 'left-0 pt-16'
            : 'right-0 pt-16',
      )}
    >
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragStart={({ active }) => setDragged(pages.find(({ id }) => id === active.id))}
        onDragCancel={() => setDragged(undefined)}
        onDragEnd={drop}
      >
        <SortableContext items={pages.map(({ id }) => id)} strategy={verticalListSortingStrategy}>
          <ol className="flex flex-col items-center gap-2">
            {pages.map((page, i) => (
              <PageThumb key={page.id} page={page} number={i + 1} current={page.id === current} desk={desk} />
            ))}
          </ol>
        </SortableContext>
        {/* What is dragged is seen beyond the strip too. */}
        <DragOverlay>{dragged && <PagePicture page={dragged} desk={desk} near />}</DragOverlay>
      </DndContext>
    </nav>
  );
}

interface PageThumbProps {
  page: Page;
  number: number;
  current: boolean;
  desk: PageDesk;
}

/** A page as it looks, small; drawn while it is `near` what is seen. */
function PagePicture({ page, desk, near }: { page: Page; desk: PageDesk; near: boolean }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const extent = desk.extentOf(page);
  const height = Math.min(220, (WIDTH * extent.height) / extent.width);
  useEffect(() => {
    const target = canvas.current!;
    if (near)
      // A small picture that cannot be drawn stays empty; the page itself says what is wrong.
      void drawThumbnail(target, page, desk, WIDTH * window.devicePixelRatio).catch(() => undefined);
    return () => {
      target.width = 0;
    };
  }, [near, page, desk]);
  return (
    <span className="block overflow-hidden rounded bg-white" style={{ width: WIDTH, height }}>
      <canvas ref={canvas} className="size-full object-contain" />
    </span>
  );
}

function PageThumb({ page, number, current, desk }: PageThumbProps) {
  const sortable = useSortable({ id: page.id });
  const item = useRef<HTMLLIElement>(null);
  const near = useNear(item);
  useEffect(() => {
    if (current) item.current!.scrollIntoView({ block: 'nearest' });
  }, [current]);

  return (
    <li
      ref={(element) => {
        item.current = element;
        sortable.setNodeRef(element);
      }}
      style={{ transform: CSS.Translate.toString(sortable.transform), transition: sortable.transition }}
      className={sortable.isDragging ? 'opacity-40' : undefined}
    >
      <button
        {...sortable.attributes}
        {...sortable.listeners}
        type="button"
        aria-current={current ? 'page' : undefined}
        aria-label={
          page.title === '' ? t('common.page', { number }) : t('pages.page', { number, title: page.title })
        }
        onClick={() => desk.turnTo(page.id)}
        className={classes(
          'block rounded-lg border-4 p-0.5',
          current ? 'border-chalk' : 'border-transparent hover:border-board-line',
        )}
      >
        <PagePicture page={page} desk={desk} near={near} />
      </button>
      <div className="flex items-center justify-between ps-2 text-sm text-paper">
        <span className="truncate">{page.title === '' ? number : `${number} ${page.title}`}</span>
        <PageMenu page={page} number={number} desk={desk} />
      </div>
    </li>
  );
}
