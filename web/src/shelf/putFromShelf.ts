import type { Mark, Page, ShelfThing } from '@doodla/core';
import { toast } from 'sonner';
import { takeThing } from '../api/shelf';
import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';
import { placeMarks } from './placeMarks';
import { placePages } from './placePages';

const UNDO_SHOWN_MS = 15_000;

interface Point {
  x: number;
  y: number;
}

/**
 * Puts a thing of the shelf on the shown page, its middle at a point; in the middle of what is seen if none is given.
 * Pages come after the shown one.
 */
export async function putFromShelf(desk: PageDesk, thing: ShelfThing, at?: Point): Promise<void> {
  const { room, sitting } = desk;
  const shown = desk.pageId.get();
  try {
    const { parts } = await takeThing(thing.id, {
      lesson: room.lesson,
      ...(sitting !== undefined && { sitting }),
    });
    // The page may have been turned meanwhile.
    if (shown === undefined || desk.pageId.get() !== shown) return;
    if (thing.kind === 'marks') {
      desk.takeTool('select');
      placeMarks(desk, parts[0]?.marks ?? [], at ?? desk.middle());
    } else {
      const pages = parts.flatMap(({ page, marks }) => (page ? [{ page, marks }] : []));
      putPages(desk, shown, pages);
    }
  } catch (error) {
    desk.tellProblem((error as Error).message);
  }
}

function putPages(
  desk: PageDesk,
  after: string,
  pages: readonly { page: Page; marks: readonly Mark[] }[],
): void {
  const step = placePages(desk, after, pages);
  if (step === undefined) return;
  toast(t('shelf.pagesAreThere', { count: pages.length }), {
    duration: UNDO_SHOWN_MS,
    action: { label: t('common.undo'), onClick: () => desk.target.takeBack(step) },
  });
}
