import type { Page, PageWords, Rect } from '@doodla/core';
import { mainPlace, paintSurface } from '@doodla/core';
import type { PDFDocumentLoadingTask, PDFDocumentProxy, PDFPageProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { Signal, Store } from '@doodla/core/client';
import type { PictureCache } from '../pictures/pictureCache';
import type { LiveScreen } from '../live/liveScreen';
import { patiently, toolsHere } from '../ui/moments';
import { drawItems, fontArrived } from './markPainter';
import { needRuling } from './rulings';
import { PdfSurface } from './pdfSurface';
import { quickPicture } from './quickPicture';
import type { SurfaceView } from './surface';

/** Pages whose pictures are kept: the shown one and its neighbours. */
const KEPT = 4;

/** The surfaces of a lesson's pages; only those near the shown page hold pictures. */
export class Surfaces {
  /** Tells of a page that has something better to show. */
  readonly changed = new Signal<string>();
  /** Tells of a page whose original cannot be shown. */
  readonly failed = new Signal<string>();

  private readonly documents = new Map<string, Promise<PDFDocumentLoadingTask>>();
  /** Most recently used last. */
  private readonly surfaces = new Map<string, PdfSurface>();
  private readonly words = new Map<string, PageWords | undefined>();
  readonly wordsChanged = new Store(0);
  /** Settles when the first page shows as a picture, or cannot. */
  private quick: Promise<ImageBitmap | undefined> | undefined;

  constructor(
    private readonly pictures: PictureCache,
    private readonly screen: LiveScreen,
    private readonly token?: string,
  ) {}

  of(page: Page): SurfaceView {
    if (page.surface.kind === 'view') return viewSurface(page, this.pictures, this.screen);
    if (page.surface.kind === 'picture') void this.findWords(page);
    if (page.surface.kind !== 'pdf') return drawnSurface(page, this.pictures);
    const { material, index } = page.surface;
    const known = this.surfaces.get(page.id);
    this.surfaces.delete(page.id);
    if (known && !known.shows(material)) known.release();
    const surface = known?.shows(material) ? known : this.pdfSurface(page, material, index);
    this.surfaces.set(page.id, surface);
    this.releaseOldest();
    return surface;
  }

  private pdfSurface(page: Page, material: string, index: number): PdfSurface {
    const quick = this.quickOf(material, index);
    return new PdfSurface(
      material,
      this.document(material),
      index,
      page,
      () => this.changed.tell(page.id),
      () => this.failed.tell(page.id),
      (original) => void this.findWords(page, original),
      quick,
    );
  }

  /** A page's surface for somebody who looks closer than the page itself is shown; to be released by them. */
  closer(page: Page, onChange: () => void): SurfaceView {
    if (page.surface.kind !== 'pdf') return this.of(page);
    const { material, index } = page.surface;
    return new PdfSurface(material, this.document(material), index, page, onChange);
  }

  /** Prepares pages that may be shown next. `scale` is device pixels per page unit. */
  prefetch(pages: readonly Page[], scale: number): void {
    for (const page of pages) {
      const whole: Rect = { x: 0, y: 0, width: page.width, height: page.height };
      this.of(page).request(scale, whole);
    }
  }

  /** A document, opened once. */
  async pdf(material: string): Promise<PDFDocumentProxy> {
    return this.document(material);
  }

  close(): void {
    for (const surface of this.surfaces.values()) surface.release();
    this.surfaces.clear();
    for (const task of this.documents.values()) void task.then((opened) => opened.destroy());
    this.documents.clear();
  }

  private async document(material: string): Promise<PDFDocumentProxy> {
    let task = this.documents.get(material);
    if (!task) {
      task = this.engine().then(({ openPdf }) => openPdf(material, this.token));
      this.documents.set(material, task);
    }
    return (await task).promise;
  }

  /** Half a megabyte: for somebody who has a picture of the page it comes after the tools. */
  private async engine(): Promise<typeof import('./pdfEngine')> {
    if (await this.quick) await toolsHere.passed;
    return patiently(() => import('./pdfEngine'));
  }

  /** A picture of the first page that a student sees; whoever prepares has what draws it. */
  private quickOf(material: string, index: number): Promise<ImageBitmap | undefined> | undefined {
    if (this.quick || this.token === undefined) return undefined;
    // Where there is none, the page itself comes a moment later.
    this.quick = quickPicture(material, index, this.token).catch(() => undefined);
    return this.quick;
  }

  /** The words of a page, as soon as they are known. */
  wordsOf(page: Page): PageWords | undefined {
    return this.words.get(page.id);
  }

  setWords({ id }: Page, words: PageWords): void {
    this.words.set(id, words);
    this.wordsChanged.set(this.wordsChanged.get() + 1);
  }

  private async findWords(page: Page, original?: PDFPageProxy): Promise<void> {
    if (this.words.has(page.id)) return;
    this.words.set(page.id, undefined);
    try {
      const { findWords } = await import('./findWords');
      this.setWords(page, await findWords(page, original, this.token));
    } catch {
      // The page is shown all the same; highlighting draws ink on it.
    }
  }

  private releaseOldest(): void {
    for (const [id, surface] of this.surfaces) {
      if (this.surfaces.size <= KEPT) return;
      this.surfaces.delete(id);
      this.words.delete(id);
      surface.release();
    }
  }
}

/** A screen as it is seen now, or as it was. */
function viewSurface(page: Page, pictures: PictureCache, screen: LiveScreen): SurfaceView {
  const put = drawnSurface(page, pictures);
  return {
    ...put,
    draw: (ctx, area) => {
      const live = screen.state.get();
      if (live?.page !== page.id || screen.canvas.width === 0) return put.draw(ctx, area);
      // The content has moved on the glass; the glass has not.
      const { x, y, scale } = mainPlace(live.panes);
      ctx.drawImage(screen.canvas, -x / scale, -y / scale, page.width / scale, page.height / scale);
    },
  };
}

/** A surface that is drawn anew each time. */
function drawnSurface(page: Page, pictures: PictureCache): SurfaceView {
  return {
    shown: true,
    request: () => undefined,
    draw(ctx, area) {
      // Without a connection the next drawing asks again.
      needRuling(page.surface).then((fresh) => fresh && fontArrived.tell(), () => undefined); // prettier-ignore
      drawItems(ctx, paintSurface(page, area), pictures);
    },
  };
}
