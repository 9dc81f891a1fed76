import type { HandoutPage, Loss, PictureFile } from '@doodla/core/handout';
import type { Page, Rect } from '@doodla/core';
import { UNITS_PER_POINT } from '@doodla/core';
import { proxy, releaseProxy, wrap } from 'comlink';
import { authorised } from '../api/http';
import { drawWebPage } from '../canvas/drawWebPage';
import type { PageDesk } from '../room/pageDesk';
import type { HandoutHost, HandoutWorker } from './handout.worker';
import { webLayout } from './webLayout';
import { t } from '../words';
import { PART_MISSING } from './partMissing';

/** Pixels per page unit of an original that has to be put in as a picture. */
const PICTURE_SCALE = 2;
/** Letters at that scale have no visible traces of compression. */
const JPEG_QUALITY = 0.92;

interface MakeOptions {
  title: string;
  signal?: AbortSignal;
  onProgress?(done: number, total: number): void;
  /** The pages to hand out; all where it is left out. */
  only?: ReadonlySet<string> | undefined;
  /** Pages of words after them. */
  after?: readonly HandoutPage[];
}

interface Made {
  pdf: Blob;
  /** What the originals have and the PDF has not. */
  losses: Loss[];
}

/** Pages with everybody's marks as a PDF, made in a worker. Throws the signal's reason when aborted. */
export async function makeHandout(
  desk: PageDesk,
  { title, signal, onProgress = () => undefined, only, after = [] }: MakeOptions,
): Promise<Made> {
  const worker = new Worker(new URL('./handout.worker.ts', import.meta.url), { type: 'module' });
  const remote = wrap<HandoutWorker>(worker);
  const losses: Loss[] = [];
  let isRunning = true;
  const host: HandoutHost = {
    pagePicture: (page, part) => pagePicture(desk, page, part),
    webLayout: (page) => webLayout(desk.room, page),
    // It comes by a port of its own, and the last of it may come after the PDF.
    onProgress: (done, total) => isRunning && onProgress(done, total),
    onLoss: (loss) => losses.push(loss),
  };
  try {
    const aborted = new Promise<never>((_, reject) => {
      signal?.addEventListener('abort', () => reject(signal.reason as Error));
    });
    const order = { title, headers: authorised(desk.token) };
    const made = desk.room
      .readAll()
      .then(() => remote.makePdf([...pagesOf(desk, only), ...after], order, proxy(host)));
    const bytes = (await Promise.race([made, aborted])) as Uint8Array<ArrayBuffer>;
    return { pdf: new Blob([bytes], { type: 'application/pdf' }), losses };
  } catch (error) {
    const isMissing = error instanceof Error && error.message === PART_MISSING;
    throw isMissing ? new Error(t('handout.aPartIsMissing')) : error;
  } finally {
    isRunning = false;
    remote[releaseProxy]();
    worker.terminate();
  }
}

/** The lesson's pages with what the class has in common on them, prepared marks lowest. */
function pagesOf(desk: PageDesk, only: ReadonlySet<string> | undefined): HandoutPage[] {
  const pages = desk.pages.get().filter(({ id }) => only?.has(id) ?? true);
  return pages.map((page) => ({
    page,
    marks: desk.layers.flatMap((layer) =>
      layer
        .on(page.id)
        .all()
        .filter((mark) => mark.space === 'class'),
    ),
  }));
}

async function pagePicture(desk: PageDesk, page: Page, part: Rect): Promise<PictureFile> {
  const { surface } = page;
  if (surface.kind === 'web') {
    const html = await desk.room.webPages.html(surface.material);
    return fileOf(await drawWebPage(html, page, PICTURE_SCALE, part), 'jpeg');
  }
  if (surface.kind !== 'pdf') throw new Error(t('handout.onlyPagesOfDocumentsAnd'));
  const doc = await desk.surfaces.pdf(surface.material);
  const original = await doc.getPage(surface.index + 1);
  const viewport = original.getViewport({ scale: PICTURE_SCALE * UNITS_PER_POINT });
  const canvas = document.createElement('canvas');
  canvas.width = Math.ceil(viewport.width);
  canvas.height = Math.ceil(viewport.height);
  await original.render({ canvas, viewport }).promise;
  return fileOf(canvas, 'png');
}

async function fileOf(canvas: HTMLCanvasElement, type: PictureFile['type']): Promise<PictureFile> {
  const blob = await new Promise<Blob | null>((resolve) =>
    canvas.toBlob(resolve, `image/${type}`, JPEG_QUALITY),
  );
  if (!blob) throw new Error(t('handout.aPageCouldNotBe'));
  return { bytes: new Uint8Array(await blob.arrayBuffer()), type };
}
