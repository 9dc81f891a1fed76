import type { Mark, Page, Rect, Space } from '@doodla/core';
import { standInId } from '@doodla/core';
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
  /** What was prepared on a page, and lies under what is played; also what is not to be seen at first. */
  prepared(page: string): readonly Mark[];
  /** In whose space a page is played; the class's where it is not said. */
  space?(page: string): Space;
  /** A page without marks, `width` pixels wide. */
  surface(page: Page, width: number): Promise<Canvas>;
  /** Fetches the pictures of a page and of marks. */
  loadPictures(page: Page, marks: readonly Mark[]): Promise<void>;
}

/** The scenery of what a desk has open. */
export function sceneryOf(desk: PageDesk): Scenery {
  const { room, pictures } = desk;
  return {
    pictures,
    pageNow: (id) => desk.target.state.pages.get(id),
    extentOf: desk.extentOf,
    prepared(page) {
      if (room.target === room.lessonLog) return [];
      const { marks } = room.target.state;
      const space = room.spaces.shownOn(page);
      // Not as it is seen now: what has been answered since was there at first. What was never shown is nobody's to see.
      const isPlayed = ({ id, hidden }: Mark) =>
        !hidden || marks.has(standInId(id, space)) || marks.has(standInId(id, 'class'));
      return [...room.lessonLog.state.marks.values()].filter((mark) => mark.page === page && isPlayed(mark));
    },
    space: (page) => room.spaces.shownOn(page),
    surface: (page, width) => drawSurface(page, desk, width),
    loadPictures: (page, marks) => loadPictures(page, marks, desk),
  };
}
