import type { Page, Rect } from '@doodla/core';
import { amongMain, mainPlace, paneOf } from '@doodla/core';
import type { NotedLive } from '@doodla/core/explain';
import type { ReplayMoment } from '@doodla/core/replay';
import type { Canvas } from '../canvas/blankCanvas';
import { contextOf } from '../canvas/blankCanvas';
import type { Context } from '../canvas/markPainter';
import { drawMark } from '../canvas/markPainter';
import type { PlayedPage } from './playedPage';

/** A moving picture under the marks of a page. */
export interface LivePicture extends NotedLive {
  /** Draws it as large as what it is drawn on. */
  draw(ctx: Context, width: number, height: number): void;
}

/** The part of the plane that is seen of a page whose content has been scrolled, page units. */
export function liveExtent({ width, height }: Page, { panes }: NotedLive): Rect {
  const { x, y, scale } = mainPlace(panes);
  return { x: -x / scale, y: -y / scale, width: width / scale, height: height / scale };
}

/** Draws a moment of a page under which something moves, `width` device pixels wide. */
export function showLive(
  canvas: Canvas,
  played: PlayedPage,
  moment: ReplayMoment,
  { page, live }: { page: Page; live: LivePicture },
  width: number,
): void {
  const height = Math.max(1, Math.round((width * page.height) / page.width));
  if (canvas.width !== width || canvas.height !== height) [canvas.width, canvas.height] = [width, height];
  const ctx = contextOf(canvas);
  ctx.setTransform(1, 0, 0, 1, 0, 0);
  live.draw(ctx, width, height);
  const { panes } = live;
  const extent = liveExtent(page, live);
  const k = width / extent.width;
  for (const mark of [...played.shownAt(moment), ...moment.growing]) {
    const { x, y, scale } = amongMain(panes, paneOf(mark, panes));
    ctx.setTransform(k * scale, 0, 0, k * scale, (x - extent.x) * k, (y - extent.y) * k);
    drawMark(ctx, mark, played.pictures);
  }
}
