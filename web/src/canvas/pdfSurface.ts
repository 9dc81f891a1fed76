import type { Rect } from '@doodla/core';
import { growRect, UNITS_PER_POINT } from '@doodla/core';
import type { PDFDocumentProxy, PDFPageProxy, RenderTask } from 'pdfjs-dist/legacy/build/pdf.mjs';
import type { SurfaceView } from './surface';
import type { Size } from './view';

/** Most pixels of the picture of a whole page, and of the enlarged part. */
const BASE_PIXELS = 6_000_000;
const DETAIL_PIXELS = 9_000_000;

interface Layer {
  canvas: HTMLCanvasElement;
  rect: Rect;
  /** Device pixels per page unit. */
  scale: number;
}

/**
 * One page of a PDF: a picture of the whole page and, when enlarged beyond that, a sharp one of
 * the visible part, both drawn by the engine from the original, never stretched for longer than a
 * moment.
 */
export class PdfSurface implements SurfaceView {
  /** Stands in until the engine has drawn the page. */
  private quick: ImageBitmap | undefined;
  private base: Layer | undefined;
  private detail: Layer | undefined;
  private wanted: { scale: number; visible: Rect } | undefined;
  private task: RenderTask | undefined;
  private busy = false;
  private released = false;
  private pageProxy: Promise<PDFPageProxy> | undefined;

  constructor(
    private readonly material: string,
    private readonly doc: Promise<PDFDocumentProxy>,
    private readonly index: number,
    private readonly size: Size,
    private readonly onChange: () => void,
    private readonly onFailed: () => void = () => undefined,
    /** Told when the whole page has been drawn. */
    private readonly onDrawn: (original: PDFPageProxy) => void = () => undefined,
    quick?: Promise<ImageBitmap | undefined>,
  ) {
    void quick?.then((picture) => this.takeQuick(picture));
  }

  /** Whether it is of this document: a page may be given another. */
  shows(material: string): boolean {
    return this.material === material;
  }

  get shown(): boolean {
    return this.base !== undefined || this.quick !== undefined;
  }

  draw(ctx: CanvasRenderingContext2D): void {
    if (this.quick) ctx.drawImage(this.quick, 0, 0, this.size.width, this.size.height);
    for (const layer of [this.base, this.detail]) {
      if (layer) ctx.drawImage(layer.canvas, layer.rect.x, layer.rect.y, layer.rect.width, layer.rect.height);
    }
  }

  request(scale: number, visible: Rect): void {
    this.wanted = { scale, visible };
    const next = this.nextLayer();
    if (this.task && !next) this.task.cancel();
    void this.work();
  }

  /** Frees the pictures. The surface must not be used afterwards. */
  release(): void {
    this.released = true;
    this.task?.cancel();
    for (const layer of [this.base, this.detail]) if (layer) free(layer.canvas);
    this.base = this.detail = undefined;
    this.dropQuick();
    void this.pageProxy?.then((page) => page.cleanup());
  }

  private async work(): Promise<void> {
    if (this.busy) return;
    this.busy = true;
    try {
      for (let next = this.nextLayer(); next && !this.released; next = this.nextLayer()) {
        await this.render(next.rect, next.scale, next.kind);
      }
    } catch (error) {
      if (!this.released && (error as Error).name !== 'RenderingCancelledException') this.onFailed();
    } finally {
      this.busy = false;
    }
  }

  /** The picture that is missing most for what is wanted now. */
  private nextLayer(): { rect: Rect; scale: number; kind: 'base' | 'detail' } | undefined {
    if (!this.wanted) return undefined;
    const { scale, visible } = this.wanted;
    const { width, height } = this.size;
    const baseScale = Math.min(scale, Math.sqrt(BASE_PIXELS / (width * height)));
    const fits = this.base && this.base.scale >= baseScale * 0.99 && this.base.scale <= baseScale * 2.5;
    if (!fits) return { rect: { x: 0, y: 0, width, height }, scale: baseScale, kind: 'base' };
    if (scale <= this.base!.scale * 1.01) {
      this.dropDetail();
      return undefined;
    }
    const part = clip(visible, this.size);
    if (part.width <= 0 || part.height <= 0) return undefined;
    if (this.detail?.scale === scale && holds(this.detail.rect, part)) return undefined;
    const rect = clip(growRect(part, Math.min(part.width, part.height) * 0.15), this.size);
    const detailScale = Math.min(scale, Math.sqrt(DETAIL_PIXELS / (rect.width * rect.height)));
    if (this.detail?.scale === detailScale && holds(this.detail.rect, part)) return undefined;
    return { rect, scale: detailScale, kind: 'detail' };
  }

  private async render(rect: Rect, scale: number, kind: 'base' | 'detail'): Promise<void> {
    this.pageProxy ??= this.doc.then((doc) => doc.getPage(this.index + 1));
    const page = await this.pageProxy;
    if (this.released) return;
    const canvas = document.createElement('canvas');
    canvas.width = Math.max(1, Math.round(rect.width * scale));
    canvas.height = Math.max(1, Math.round(rect.height * scale));
    const viewport = page.getViewport({
      scale: scale * UNITS_PER_POINT,
      offsetX: -rect.x * scale,
      offsetY: -rect.y * scale,
    });
    this.task = page.render({ canvas, viewport });
    try {
      await this.task.promise;
    } finally {
      this.task = undefined;
    }
    if (this.released) return free(canvas);
    const old = this[kind];
    this[kind] = { canvas, rect, scale };
    if (old) free(old.canvas);
    this.dropQuick();
    if (kind === 'base') this.onDrawn(page);
    this.onChange();
  }

  private takeQuick(picture: ImageBitmap | undefined): void {
    if (this.released || this.base) return picture?.close();
    this.quick = picture;
    if (picture) this.onChange();
  }

  private dropQuick(): void {
    this.quick?.close();
    this.quick = undefined;
  }

  private dropDetail(): void {
    if (this.detail) free(this.detail.canvas);
    this.detail = undefined;
  }
}

/** Gives a canvas's pixels back at once, without waiting for the garbage collector. */
function free(canvas: HTMLCanvasElement): void {
  canvas.width = canvas.height = 0;
}

function clip(rect: Rect, { width, height }: Size): Rect {
  const x = Math.max(0, rect.x);
  const y = Math.max(0, rect.y);
  return {
    x,
    y,
    width: Math.min(width, rect.x + rect.width) - x,
    height: Math.min(height, rect.y + rect.height) - y,
  };
}

function holds(outer: Rect, inner: Rect): boolean {
  return (
    outer.x <= inner.x + 0.5 &&
    outer.y <= inner.y + 0.5 &&
    outer.x + outer.width >= inner.x + inner.width - 0.5 &&
    outer.y + outer.height >= inner.y + inner.height - 0.5
  );
}
