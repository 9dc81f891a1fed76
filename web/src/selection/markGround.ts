import type { Mark } from '@doodla/core';
import { amongMain, paneOf } from '@doodla/core';
import type { PageDesk } from '../room/pageDesk';
import type { Stage } from '../stage/stage';
import type { View } from '../canvas/view';
import { toPage } from '../canvas/view';

/** What marks lie on, as their handles need it: the page, or one part of a shown screen. */
export interface MarkGround {
  host: HTMLElement;
  /** How it lies in the window. */
  view: View;
  /** The place under a point of the window. */
  toPage(x: number, y: number): { x: number; y: number };
}

/** The ground of marks that are selected together; that of the main part where they lie on several. */
export function groundOf(marks: readonly Mark[], desk: PageDesk, stage: Stage): MarkGround {
  const main = stage.view.get();
  const panes = desk.screen.panesOf(desk.pageId.get() ?? '');
  const [pane, ...others] = new Set(marks.map((mark) => paneOf(mark, panes)));
  const single = panes.length > 0 && pane !== undefined && others.length === 0;
  const place = single ? amongMain(panes, pane) : { x: 0, y: 0, scale: 1 };
  const view = {
    scale: main.scale * place.scale,
    x: main.x + place.x * main.scale,
    y: main.y + place.y * main.scale,
  };
  return { host: stage.host, view, toPage: (x, y) => toPage(view, x, y) };
}
