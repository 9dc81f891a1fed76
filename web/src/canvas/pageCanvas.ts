import type { Mark, Page, Pane, Rect, SpatialIndex } from '@doodla/core';
import { amongMain, growRect, isBoundless, markBounds, paneOf, rectsTouch, unionRect } from '@doodla/core';
import type { PictureCache } from '../pictures/pictureCache';
import { blends } from './blends';
import type { WetInk } from './preview';
import { drawInk, drawMark } from './markPainter';
import type { Dot } from './dotPainter';
import { drawDots } from './dotPainter';
import type { SurfaceView } from './surface';
import type { Size, View } from './view';
import { visibleRect } from './view';

/** A full drawing that takes longer than this is put off while the view moves. */
const QUICK_MS = 10;
const SETTLE_MS = 120;

/** All marks, those that blend with what is under them, or those that do not. */
type Which = 'all' | 'blended' | 'plain';

/**
 * Draws a page: surface and finished marks on one canvas, in their order, so that highlighters
 * blend with what is under them; wet ink on two canvases above, one of them multiplied. Over a page that
 * lies in a frame of its own, what blends is on a canvas below the others that is multiplied as a whole.
 * Finished marks are drawn again only where something changed.
 */
export class PageCanvas {
  private readonly dry: HTMLCanvasElement;
  private readonly dryMultiply: HTMLCanvasElement;
  private readonly wet: HTMLCanvasElement;
  private readonly wetMultiply: HTMLCanvasElement;
  private stage: Size = { width: 1, height: 1 };
  private ratio = 1;
  private view: View = { scale: 1, x: 0, y: 0 };
  /** The view that the dry canvas was last drawn for. */
  private drawnView: View = this.view;
  private page: Page | undefined;
  private surface: SurfaceView | undefined;
  private layers: readonly SpatialIndex[] = [];
  private hidden: ReadonlySet<string> = new Set();
  private panes: readonly Pane[] = [];
  private stale: Rect | 'all' | undefined;
  private wetInk: readonly WetInk[] = [];
  private wetMarks: readonly Mark[] = [];
  /** A lasso being drawn, flat x, y. */
  private area: readonly number[] = [];
  /** Who points, and where. */
  private dots: readonly Dot[] = [];
  /** Wet canvases on which something is drawn. */
  private readonly holding = new Set<HTMLCanvasElement>();
  private wetStale = false;
  private frame = 0;
  private settleTimer: ReturnType<typeof setTimeout> | undefined;
  private lastFullMs = 0;
  /** Called before a frame in which wet things have changed. */
  onFrame: () => void = () => undefined;

  constructor(
    host: HTMLElement,
    private readonly pictures: PictureCache,
  ) {
    this.dryMultiply = addMultiplied(host, 'dry-multiply');
    this.dry = addCanvas(host, 'dry');
    this.wetMultiply = addMultiplied(host, 'wet-multiply');
    this.wet = addCanvas(host, 'wet');
  }

  /** Asks for what is wet to be told anew, once, before the next frame is drawn. */
  touchWet(): void {
    this.wetStale = true;
    this.schedule();
  }

  resize(stage: Size, ratio: number): void {
    this.stage = stage;
    this.ratio = ratio;
    for (const canvas of this.canvases) {
      canvas.width = Math.round(stage.width * ratio);
      canvas.height = Math.round(stage.height * ratio);
      canvas.style.width = `${stage.width}px`;
      canvas.style.height = `${stage.height}px`;
    }
    this.invalidate('all');
  }

  /** Shows a page with its layers of marks, lowest layer first. */
  show(page: Page, surface: SurfaceView, layers: readonly SpatialIndex[]): void {
    this.page = page;
    this.surface = surface;
    this.layers = layers;
    this.invalidate('all');
    this.requestSurface();
  }

  /** Shows nothing. */
  clear(): void {
    this.page = undefined;
    this.surface = undefined;
    this.layers = [];
    this.invalidate('all');
    this.touchWet();
  }

  /** `live`: what is under the marks moves by itself, so no old picture may stand in for it. */
  setView(view: View, live = false): void {
    this.view = view;
    this.wetStale = true;
    clearTimeout(this.settleTimer);
    if (live || this.lastFullMs <= QUICK_MS) this.invalidate('all');
    else {
      this.moveDrawn();
      this.settleTimer = setTimeout(() => this.invalidate('all'), SETTLE_MS);
    }
    this.requestSurface();
    this.schedule();
  }

  /** Shows what is not on the page yet: ink, marks as they would become, a lasso. */
  setWet(ink: readonly WetInk[], marks: readonly Mark[], area: readonly number[]): void {
    this.wetInk = ink;
    this.wetMarks = marks;
    this.area = area;
    this.wetStale = true;
    this.schedule();
  }

  setDots(dots: readonly Dot[]): void {
    this.dots = dots;
  }

  /** The parts of a shown screen on which marks lie; drawn anew by whoever says so. */
  setPanes(panes: readonly Pane[]): void {
    this.panes = panes;
  }

  /** Leaves marks out that are shown in another way for now. */
  setHidden(ids: ReadonlySet<string>): void {
    const changed = [...ids, ...this.hidden].filter((id) => ids.has(id) !== this.hidden.has(id));
    this.hidden = ids;
    for (const id of changed) {
      const mark = this.layers.map((layer) => layer.get(id)).find((found) => found !== undefined);
      if (mark) this.invalidate(markBounds(mark));
    }
  }

  /** Draws anew what lies in a rectangle (page units), or everything. */
  invalidate(what: Rect | 'all'): void {
    if (what === 'all' || this.stale === 'all') this.stale = 'all';
    else this.stale = this.stale ? unionRect(this.stale, what) : what;
    this.schedule();
  }

  /** The colour seen at a point of the window, as hex. */
  colourAt(x: number, y: number): string {
    const { data } = context(this.dry).getImageData(
      Math.floor(x * this.ratio),
      Math.floor(y * this.ratio),
      1,
      1,
    );
    return `#${[data[0]!, data[1]!, data[2]!].map((part) => part.toString(16).padStart(2, '0')).join('')}`;
  }

  destroy(): void {
    cancelAnimationFrame(this.frame);
    clearTimeout(this.settleTimer);
    for (const canvas of this.canvases) canvas.remove();
  }

  private requestSurface(): void {
    this.surface?.request(this.view.scale * this.ratio, visibleRect(this.view, this.stage));
  }

  private schedule(): void {
    this.frame ||= requestAnimationFrame(() => {
      if (this.wetStale) this.onFrame();
      this.frame = 0;
      if (this.stale === 'all') this.drawAll();
      else if (this.stale) this.drawPart(this.stale);
      this.stale = undefined;
      if (this.wetStale) this.drawWet();
      this.wetStale = false;
    });
  }

  /** Moves the picture that is there, until it is drawn anew. */
  private moveDrawn(): void {
    const k = this.view.scale / this.drawnView.scale;
    const x = this.view.x - this.drawnView.x * k;
    const y = this.view.y - this.drawnView.y * k;
    for (const { style } of [this.dry, this.dryMultiply])
      style.transform = `translate(${x}px, ${y}px) scale(${k})`;
  }

  private drawAll(): void {
    const started = performance.now();
    this.drawnView = this.view;
    this.dryMultiply.style.display = this.isFramed ? '' : 'none';
    for (const [canvas, which] of this.dryCanvases) {
      canvas.style.transform = '';
      const ctx = context(canvas);
      ctx.resetTransform();
      ctx.clearRect(0, 0, canvas.width, canvas.height);
      this.drawPageInto(ctx, visibleRect(this.view, this.stage), which);
    }
    this.lastFullMs = performance.now() - started;
    if (this.layers.some((layer) => layer.size > 0)) performance.mark('log drawn');
  }

  private drawPart(part: Rect): void {
    // One device pixel more on each side: edges of clipped shapes are blurred.
    const rect = growRect(part, 2 / (this.view.scale * this.ratio));
    if (!rectsTouch(rect, visibleRect(this.view, this.stage))) return;
    for (const [canvas, which] of this.dryCanvases) this.drawPartOf(canvas, rect, which);
  }

  private drawPartOf(canvas: HTMLCanvasElement, rect: Rect, which: Which): void {
    const ctx = context(canvas);
    ctx.save();
    ctx.resetTransform();
    const { scale, x, y } = this.drawnView;
    const k = scale * this.ratio;
    const left = Math.floor(rect.x * k + x * this.ratio);
    const top = Math.floor(rect.y * k + y * this.ratio);
    const right = Math.ceil((rect.x + rect.width) * k + x * this.ratio);
    const bottom = Math.ceil((rect.y + rect.height) * k + y * this.ratio);
    ctx.beginPath();
    ctx.rect(left, top, right - left, bottom - top);
    ctx.clip();
    ctx.clearRect(left, top, right - left, bottom - top);
    this.drawPageInto(ctx, rect, which);
    ctx.restore();
  }

  private get canvases(): HTMLCanvasElement[] {
    return [this.dryMultiply, this.dry, this.wetMultiply, this.wet];
  }

  /** The canvases of what is finished, with what each of them shows. */
  private get dryCanvases(): [HTMLCanvasElement, Which][] {
    if (!this.isFramed) return [[this.dry, 'all']];
    return [
      [this.dryMultiply, 'blended'],
      [this.dry, 'plain'],
    ];
  }

  /** Web pages and recordings lie in a frame under the canvases. */
  private get isFramed(): boolean {
    const kind = this.page?.surface.kind;
    return kind === 'web' || kind === 'media';
  }

  /** Draws what is within a rectangle into a context that is in page units, with a surface of one's own. */
  paintInto(ctx: CanvasRenderingContext2D, rect: Rect, surface = this.surface, which: Which = 'all'): void {
    if (!this.page) return;
    ctx.save();
    if (!isBoundless(this.page)) {
      ctx.beginPath();
      ctx.rect(0, 0, this.page.width, this.page.height);
      ctx.clip();
      if (!this.isFramed) {
        ctx.fillStyle = '#ffffff';
        ctx.fillRect(0, 0, this.page.width, this.page.height);
      }
    }
    // A boundless surface has no edge of its own to clip it, so it is drawn a little wider than what is stale.
    if (this.page.surface.kind !== 'media' && which !== 'blended')
      surface?.draw(ctx, growRect(rect, 2 / (this.drawnView.scale * this.ratio)));
    for (const layer of this.layers) {
      // Those of another pane than the main one may lie anywhere.
      for (const mark of this.panes.length > 0 ? layer.all() : layer.within(rect))
        if (!this.hidden.has(mark.id) && (which === 'all' || (which === 'blended') === blends(mark)))
          this.drawInPane(ctx, mark);
    }
    ctx.restore();
  }

  private drawInPane(ctx: CanvasRenderingContext2D, mark: Mark): void {
    this.inPane(ctx, this.panes.length > 0 ? paneOf(mark, this.panes) : undefined, () =>
      drawMark(ctx, mark, this.pictures),
    );
  }

  /** Draws what lies among the content of a pane into a context that is in units of the main one's. */
  private inPane(ctx: CanvasRenderingContext2D, pane: number | undefined, draw: () => void): void {
    if (pane === undefined || this.panes.length === 0) return draw();
    const { x, y, scale } = amongMain(this.panes, pane);
    ctx.save();
    ctx.transform(scale, 0, 0, scale, x, y);
    draw();
    ctx.restore();
  }

  private drawPageInto(ctx: CanvasRenderingContext2D, rect: Rect, which: Which): void {
    this.usePageUnits(ctx, this.drawnView);
    this.paintInto(ctx, rect, this.surface, which);
  }

  private drawWet(): void {
    // Blending a whole canvas with the page costs something at every frame, so it is there only when needed.
    const blends = this.wetInk.some((ink) => ink.style.nature === 'highlighter');
    this.wetMultiply.style.display = blends ? '' : 'none';
    const plain = this.wetInk.some((ink) => ink.style.nature !== 'highlighter');
    const onWet = plain || this.wetMarks.length > 0 || this.area.length > 0 || this.dots.length > 0;
    this.prepareWet(this.wet, onWet);
    this.prepareWet(this.wetMultiply, blends);
    for (const mark of this.wetMarks) this.drawInPane(context(this.wet), mark);
    for (const ink of this.wetInk) {
      const ctx = context(ink.style.nature === 'highlighter' ? this.wetMultiply : this.wet);
      // The canvas below is blended as a whole.
      this.inPane(ctx, ink.pane, () => drawInk(ctx, ink, true));
    }
    this.drawArea(context(this.wet));
    drawDots(context(this.wet), this.dots, this.view.scale);
  }

  /** Clears a wet canvas; one that was empty and stays so is not touched, which spares the browser a layer. */
  private prepareWet(canvas: HTMLCanvasElement, willHold: boolean): void {
    if (!willHold && !this.holding.has(canvas)) return;
    const ctx = context(canvas);
    ctx.resetTransform();
    ctx.clearRect(0, 0, canvas.width, canvas.height);
    this.usePageUnits(ctx, this.view);
    if (willHold) this.holding.add(canvas);
    else this.holding.delete(canvas);
  }

  private drawArea(ctx: CanvasRenderingContext2D): void {
    if (this.area.length < 4) return;
    ctx.beginPath();
    for (let i = 0; i < this.area.length; i += 2) ctx.lineTo(this.area[i]!, this.area[i + 1]!);
    ctx.lineWidth = 2 / this.view.scale;
    ctx.setLineDash([6 / this.view.scale, 5 / this.view.scale]);
    ctx.strokeStyle = '#7a5600';
    ctx.stroke();
    ctx.fillStyle = 'rgb(242 194 48 / 0.18)';
    ctx.fill();
  }

  private usePageUnits(ctx: CanvasRenderingContext2D, { scale, x, y }: View): void {
    const k = scale * this.ratio;
    ctx.setTransform(k, 0, 0, k, x * this.ratio, y * this.ratio);
  }
}

/** A canvas that is blended with what is under it as a whole; there only when something is on it. */
function addMultiplied(host: HTMLElement, name: string): HTMLCanvasElement {
  const canvas = addCanvas(host, name);
  canvas.style.mixBlendMode = 'multiply';
  canvas.style.display = 'none';
  return canvas;
}

function addCanvas(host: HTMLElement, name: string): HTMLCanvasElement {
  const canvas = document.createElement('canvas');
  canvas.dataset.layer = name;
  canvas.style.cssText = 'position:absolute;inset:0;pointer-events:none;transform-origin:0 0;';
  host.append(canvas);
  return canvas;
}

function context(canvas: HTMLCanvasElement): CanvasRenderingContext2D {
  return canvas.getContext('2d')!;
}
