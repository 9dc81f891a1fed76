import type { Focus, Rect, Timer } from '@doodla/core';
import { FACTORS } from '@doodla/core';
import type { Workspace } from '../workspace/workspace';

/** Part of what is in sight that a new spotlight or glass takes. */
const SHARE = { spotlight: 0.42, glass: 0.3 };

/** What is seen of the shown page. */
function inSight(workspace: Workspace): Rect | undefined {
  const { page } = workspace;
  if (!page) return undefined;
  const extent = workspace.extentOf(page);
  const seen = workspace.visible();
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
function middleBox(workspace: Workspace, share: number, square: boolean): Rect | undefined {
  const seen = inSight(workspace);
  if (!seen) return undefined;
  const side = Math.min(seen.width, seen.height) * share;
  const width = square ? side : seen.width * share;
  const height = square ? side : seen.height * share;
  return { x: seen.x + (seen.width - width) / 2, y: seen.y + (seen.height - height) / 2, width, height };
}

/** Sets what the class's eye is led to, or takes it away if it is of that kind already. */
function toggle(workspace: Workspace, kind: Focus['kind'], make: (page: string) => Focus | undefined): void {
  const { classroom } = workspace;
  const page = workspace.pageId.get();
  if (!classroom || page === undefined) return;
  workspace.settle();
  const now = classroom.scene.get().focus;
  const focus = now?.kind === kind && now.page === page ? null : make(page);
  if (focus !== undefined) classroom.setScene({ focus });
}

export function spotlight(workspace: Workspace): void {
  toggle(workspace, 'spotlight', (page) => {
    const box = middleBox(workspace, SHARE.spotlight, true);
    return box && { kind: 'spotlight', page, shared: true, shape: 'round', dark: 0.75, ...box };
  });
}

export function cover(workspace: Workspace): void {
  const { page } = workspace;
  toggle(
    workspace,
    'cover',
    (id) => page && { kind: 'cover', page: id, shared: true, ...workspace.extentOf(page) },
  );
}

export function magnifier(workspace: Workspace): void {
  toggle(workspace, 'magnifier', (page) => {
    const box = middleBox(workspace, SHARE.glass, true);
    return box && { kind: 'magnifier', page, shared: true, factor: Math.max(2, FACTORS.least), ...box };
  });
}

/** Starts a countdown of so many minutes, or takes the running timer away. */
export function countdown(workspace: Workspace, minutes = 3): void {
  const { classroom } = workspace;
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

export function stopwatch(workspace: Workspace): void {
  const { classroom } = workspace;
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
export function twoPages(workspace: Workspace): void {
  const { classroom } = workspace;
  if (!classroom) return;
  if (classroom.scene.get().split) return classroom.setScene({ split: null });
  const pages = workspace.pages.get();
  const at = pages.findIndex(({ id }) => id === workspace.pageId.get());
  const beside = pages[at + 1] ?? pages[at - 1] ?? pages[at];
  if (beside) classroom.setScene({ split: { page: beside.id, at: 0.5 } });
}

/** Covers answers again that were uncovered. */
export function coverAgain(workspace: Workspace): void {
  workspace.classroom?.setScene({ uncovered: [] });
}
