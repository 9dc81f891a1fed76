import type { Focus, Page, Rect } from '@doodla/core';
import type { Shown } from '@doodla/core/explain';
import type { Canvas } from '../canvas/blankCanvas';
import { contextOf, copyOf } from '../canvas/blankCanvas';
import { drawDots } from '../canvas/dotPainter';
import type { Context } from '../canvas/markPainter';
import { drawInk } from '../canvas/markPainter';
import { spotlightHole } from '../canvas/spotlightHole';

const DARK = '#05100c';
const SHEET = '#23483b';

/**
 * Draws what was shown beside a page onto its picture: ink that fades, who points, and what leads the eye. Dots are `dot` times
 * as large as in a window of ordinary pixels.
 */
export function paintShown(canvas: Canvas, page: Page, extent: Rect, shown: Shown, dot: number): void {
  const scale = canvas.width / extent.width;
  const ctx = contextOf(canvas);
  const toPageUnits = () => ctx.setTransform(scale, 0, 0, scale, -extent.x * scale, -extent.y * scale);
  toPageUnits();
  for (const wisp of shown.wisps) if (wisp.page === page.id) drawInk(ctx, wisp);
  if (shown.focus?.page === page.id) {
    paintFocus(ctx, canvas, extent, shown.focus);
    toPageUnits();
  }
  const now = performance.now();
  const dots = shown.points
    .filter((one) => one.page === page.id)
    .map(({ colour, trail }) => ({ colour, trail: trail.map(({ x, y, age }) => ({ x, y, at: now - age })) }));
  // A dot is as large on the screen however large the picture is.
  drawDots(ctx, dots, scale / dot);
}

function paintFocus(ctx: Context, canvas: Canvas, extent: Rect, focus: Focus): void {
  const { x, y, width, height } = focus;
  switch (focus.kind) {
    case 'cover':
      ctx.fillStyle = SHEET;
      return ctx.fillRect(x, y, width, height);
    case 'spotlight': {
      const all = new Path2D();
      all.rect(extent.x, extent.y, extent.width, extent.height);
      all.addPath(new Path2D(spotlightHole(focus, focus)));
      ctx.globalAlpha = focus.dark;
      ctx.fillStyle = DARK;
      ctx.fill(all, 'evenodd');
      ctx.globalAlpha = 1;
      return;
    }
    case 'magnifier':
      return paintGlass(ctx, copyOf(canvas), extent, focus);
    case 'enlarged': {
      const picture = copyOf(canvas);
      const scale = picture.width / extent.width;
      const factor = Math.min(extent.width / width, extent.height / height);
      ctx.fillStyle = DARK;
      ctx.fillRect(extent.x, extent.y, extent.width, extent.height);
      const left = extent.x + (extent.width - width * factor) / 2;
      const top = extent.y + (extent.height - height * factor) / 2;
      const from = [(x - extent.x) * scale, (y - extent.y) * scale] as const;
      ctx.drawImage(
        picture,
        ...from,
        width * scale,
        height * scale,
        left,
        top,
        width * factor,
        height * factor,
      );
    }
  }
}

function paintGlass(
  ctx: Context,
  picture: Canvas,
  extent: Rect,
  { x, y, width, height, factor }: Extract<Focus, { kind: 'magnifier' }>,
): void {
  const scale = picture.width / extent.width;
  const [middleX, middleY] = [x + width / 2, y + height / 2];
  const seen = { width: width / factor, height: height / factor };
  ctx.save();
  ctx.beginPath();
  ctx.ellipse(middleX, middleY, width / 2, height / 2, 0, 0, 2 * Math.PI);
  ctx.clip();
  ctx.fillStyle = '#ffffff';
  ctx.fillRect(x, y, width, height);
  ctx.drawImage(
    picture,
    (middleX - seen.width / 2 - extent.x) * scale,
    (middleY - seen.height / 2 - extent.y) * scale,
    seen.width * scale,
    seen.height * scale,
    x,
    y,
    width,
    height,
  );
  ctx.restore();
  ctx.lineWidth = 4;
  ctx.strokeStyle = SHEET;
  ctx.beginPath();
  ctx.ellipse(middleX, middleY, width / 2, height / 2, 0, 0, 2 * Math.PI);
  ctx.stroke();
}
