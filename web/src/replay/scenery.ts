import type { Mark, Page, Rect } from '@doodla/core';
import type { Canvas } from '../canvas/blankCanvas';
import type { Pictures } from '../canvas/markPainter';
import type { PageDesk } from '../room/pageDesk';
import { drawSurface, loadPictures } from '../room/thumbnail';

/** What the pages of a playback look like without what is played. */
export interface Scenery {
  /** Pictures that are here by now. */
  readonly pictures: Pictures;
  /** A page as it is now. */
  pageNow(id: string): Page | undefined;
  /** The part of the plane that a page takes in its picture, page units. */
  extentOf(page: Page): Rect;
  /** What was prepared on a page, and lies under what is played. */
  prepared(page: string): readonly Mark[];
  /** A page without marks, `width` pixels wide. */
  surface(page: Page, width: number): Promise<Canvas>;
  /** Fetches the pictures of a page and of marks. */
  loadPictures(page: Page, marks: readonly Mark[]): Promise<void>;
}

/** The scenery of what a desk has open. */
export function sceneryOf(desk: PageDesk): Scenery {
  const { room, layers, pictures } = desk;
  return {
    pictures,
    pageNow: (id) => desk.target.state.pages.get(id),
    extentOf: desk.extentOf,
    prepared(page) {
      if (room.target === room.lessonLog) return [];
      const { marks } = room.lessonLog.state;
      return layers.flatMap((layer) => layer.on(page).all()).filter((mark) => marks.has(mark.id));
    },
    surface: (page, width) => drawSurface(page, desk, width),
    loadPictures: (page, marks) => loadPictures(page, marks, desk),
  };
}
