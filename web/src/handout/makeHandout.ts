import type { HandoutPage, Picture } from '@doodla/core/handout';
import type { Page } from '@doodla/core';
import { UNITS_PER_POINT } from '@doodla/core';
import { proxy, releaseProxy, wrap } from 'comlink';
import { drawWebPage } from '../page/drawWebPage';
import type { Workspace } from '../workspace/workspace';
import type { HandoutHost, HandoutWorker } from './handout.worker';

/** Pixels per page unit of an original that has to be put in as a picture. */
const PICTURE_SCALE = 2;

/** All pages, or some, with everybody's marks as a PDF, made in a worker. Throws the signal's reason when aborted. */
export async function makeHandout(
  workspace: Workspace,
  title: string,
  onProgress: (done: number, total: number) => void,
  signal: AbortSignal,
  only?: ReadonlySet<string>,
): Promise<Blob> {
  const worker = new Worker(new URL('./handout.worker.ts', import.meta.url), { type: 'module' });
  const remote = wrap<HandoutWorker>(worker);
  const host: HandoutHost = { pagePicture: (page) => pagePicture(workspace, page), onProgress };
  try {
    const aborted = new Promise<never>((_, reject) => {
      signal.addEventListener('abort', () => reject(signal.reason as Error));
    });
    const made = workspace.readAll().then(() => remote.makePdf(pagesOf(workspace, only), title, proxy(host)));
    const bytes = (await Promise.race([made, aborted])) as Uint8Array<ArrayBuffer>;
    return new Blob([bytes], { type: 'application/pdf' });
  } finally {
    remote[releaseProxy]();
    worker.terminate();
  }
}

/** The lesson's pages with what the class has in common on them, prepared marks lowest. */
function pagesOf(workspace: Workspace, only: ReadonlySet<string> | undefined): HandoutPage[] {
  const pages = workspace.pages.get().filter(({ id }) => only?.has(id) ?? true);
  return pages.map((page) => ({
    page,
    marks: workspace.layers.flatMap((layer) =>
      layer
        .on(page.id)
        .all()
        .filter((mark) => mark.space === 'class'),
    ),
  }));
}

async function pagePicture(workspace: Workspace, page: Page): Promise<Picture> {
  if (page.surface.kind === 'web') return webPicture(workspace, page, page.surface.material);
  if (page.surface.kind !== 'pdf') throw new Error('Only document pages are put in as pictures.');
  const doc = await workspace.surfaces.pdf(page.surface.material);
  const original = await doc.getPage(page.surface.index + 1);
  const viewport = original.getViewport({ scale: PICTURE_SCALE * UNITS_PER_POINT });
  const canvas = document.createElement('canvas');
  canvas.width = Math.ceil(viewport.width);
  canvas.height = Math.ceil(viewport.height);
  await original.render({ canvas, viewport }).promise;
  return pictureOf(canvas, page);
}

async function webPicture(workspace: Workspace, page: Page, material: string): Promise<Picture> {
  const html = await workspace.webPages.html(material);
  return pictureOf(await drawWebPage(html, page, PICTURE_SCALE), page);
}

async function pictureOf(canvas: HTMLCanvasElement, { width, height }: Page): Promise<Picture> {
  const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
  if (!blob) throw new Error('A page could not be drawn. Please try again.');
  return { bytes: new Uint8Array(await blob.arrayBuffer()), width, height };
}
