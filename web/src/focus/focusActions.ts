import type { Focus, Rect, Timer } from '@doodla/core';
import { FACTORS } from '@doodla/core';
import type { ClassClient } from '@doodla/core/client';
import type { Desk } from '../desk/desk';

/** What leading the eye needs of a desk. */
export type LeadingDesk = Pick<Desk, 'extentOf' | 'page' | 'pageId' | 'pages' | 'settle'> & {
  classroom: Pick<ClassClient, 'now' | 'scene' | 'setScene'> | undefined;
  /** The part of the page plane that is in sight. */
  visible(): Rect;
};

/** Part of what is in sight that a new spotlight or glass takes. */
const SHARE = { spotlight: 0.42, glass: 0.3 };

/** What is seen of the shown page. */
function inSight(desk: LeadingDesk): Rect | undefined {
  const { page } = desk;
  if (!page) return undefined;
  const extent = desk.extentOf(page);
  const seen = desk.visible();
  const x = Math.max(extent.x, seen.x);
  const y = Math.max(extent.y, seen.y);
  return {
    x,
    y,
    width: Math.max(1, Math.min(extent.x + extent.width, seen.x + seen.width) - x),
    height: Math.max(1, Math.min(extent.y + extent.height, seen.y + seen.height) - y),
  };
}

/** A box in the middle of what is in sight. */
function middleBox(desk: LeadingDesk, share: number, square: boolean): Rect | undefined {
  const seen = inSight(desk);
  if (!seen) return undefined;
  const side = Math.min(seen.width, seen.height) * share;
  const width = square ? side : seen.width * share;
  const height = square ? side : seen.height * share;
  return { x: seen.x + (seen.width - width) / 2, y: seen.y + (seen.height - height) / 2, width, height };
}

/** Sets what the class's eye is led to, or takes it away if it is of that kind already. */
function toggle(desk: LeadingDesk, kind: Focus['kind'], make: (page: string) => Focus | undefined): void {
  const { classroom } = desk;
  const page = desk.pageId.get();
  if (!classroom || page === undefined) return;
  desk.settle();
  const now = classroom.scene.get().focus;
  const focus = now?.kind === kind && now.page === page ? null : make(page);
  if (focus !== undefined) classroom.setScene({ focus });
}

export function spotlight(desk: LeadingDesk): void {
  toggle(desk, 'spotlight', (page) => {
    const box = middleBox(desk, SHARE.spotlight, true);
    return box && { kind: 'spotlight', page, shared: true, shape: 'round', dark: 0.75, ...box };
  });
}

export function cover(desk: LeadingDesk): void {
  const { page } = desk;
  toggle(desk, 'cover', (id) => page && { kind: 'cover', page: id, shared: true, ...desk.extentOf(page) });
}

export function magnifier(desk: LeadingDesk): void {
  toggle(desk, 'magnifier', (page) => {
    const box = middleBox(desk, SHARE.glass, true);
    return box && { kind: 'magnifier', page, shared: true, factor: Math.max(2, FACTORS.least), ...box };
  });
}

/** Starts a countdown of so many minutes, or takes the running timer away. */
export function countdown(desk: LeadingDesk, minutes = 3): void {
  const { classroom } = desk;
  if (!classroom) return;
  const timer: Timer | null = classroom.scene.get().timer
    ? null
    : {
        kind: 'countdown',
        length: minutes * 60_000,
        before: 0,
        startedAt: classroom.now,
        sound: true,
        large: false,
      };
  classroom.setScene({ timer });
}

export function stopwatch(desk: LeadingDesk): void {
  const { classroom } = desk;
  classroom?.setScene({
    timer: {
      kind: 'stopwatch',
      length: 0,
      before: 0,
      startedAt: classroom.now,
      sound: false,
      large: false,
    },
  });
}

/** Shows the next page beside this one, or this one alone again. */
export function twoPages(desk: LeadingDesk): void {
  const { classroom } = desk;
  if (!classroom) return;
  if (classroom.scene.get().split) return classroom.setScene({ split: null });
  const pages = desk.pages.get();
  const at = pages.findIndex(({ id }) => id === desk.pageId.get());
  const beside = pages[at + 1] ?? pages[at - 1] ?? pages[at];
  if (beside) classroom.setScene({ split: { page: beside.id, at: 0.5 } });
}

/** Covers answers again that were uncovered. */
export function coverAgain(desk: LeadingDesk): void {
  desk.classroom?.setScene({ uncovered: [] });
}
