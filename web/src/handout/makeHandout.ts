import type { HandoutPage, Loss, PictureFile } from '@doodla/core/handout';
import type { Page, Rect } from '@doodla/core';
import { UNITS_PER_POINT } from '@doodla/core';
import { proxy, releaseProxy, transfer, wrap } from 'comlink';
import { authorised, request } from '../api/http';
import { drawWebPage } from '../canvas/drawWebPage';
import { findWords } from '../canvas/findWords';
import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';
import type { HandoutHost, HandoutWorker, MadeHandout } from './handout.worker';
import { fetchArchive } from './fetchArchive';
import type { HandoutChoice, HandoutOrder, MadeFormat } from './handoutOrder';
import { hasFoot, USUAL } from './handoutOrder';
import { calledBy, handoutSets, studentsOf } from './handoutSets';
import { PART_MISSING } from './partMissing';
import { webLayout } from './webLayout';

/** Pixels per page unit of an original that has to be put in as a picture. */
const PICTURE_SCALE = 2;
/** Letters at that scale have no visible traces of compression. */
const JPEG_QUALITY = 0.92;

interface MakeOptions {
  title: string;
  choice?: HandoutChoice;
  signal?: AbortSignal;
  onProgress?(done: number, total: number): void;
  /** The pages to hand out; all where it is left out. */
  only?: ReadonlySet<string> | undefined;
  /** Pages of words after them. */
  after?: readonly HandoutPage[];
  /** What stands at the foot of each page. */
  foot?: string | undefined;
}

interface Made extends MadeHandout {
  /** What the originals have and the handout has not. */
  losses: Loss[];
}

/** Pages with marks as files, made in a worker. Throws the signal's reason when aborted. */
export async function makeHandout(
  desk: PageDesk,
  { title, choice = USUAL, signal, onProgress = () => undefined, only, after = [], foot }: MakeOptions,
): Promise<Made> {
  const format = choice.format === 'link' ? 'webpage' : choice.format;
  if (format === 'archive')
    return { ...(await fetchArchive(desk.room.lesson, { title, signal, onProgress })), losses: [] };
  const worker = new Worker(new URL('./handout.worker.ts', import.meta.url), { type: 'module' });
  const remote = wrap<HandoutWorker>(worker);
  const losses: Loss[] = [];
  let isRunning = true;
  const host: HandoutHost = {
    pagePicture: (page, part) => pagePicture(desk, page, part),
    pageBitmap: async (page, scale) => {
      const bitmap = await createImageBitmap(await drawOriginal(desk, page, scale));
      return transfer(bitmap, [bitmap]);
    },
    webLayout: (page) => layoutOf(desk, page),
    address: (material) => desk.room.webPages.source(material),
    // It comes by a port of its own, and the last of it may come after the files.
    onProgress: (done, total) => isRunning && onProgress(done, total),
    onLoss: (loss) => losses.push(loss),
  };
  try {
    const aborted = new Promise<never>((_, reject) => {
      signal?.addEventListener('abort', () => reject(signal.reason as Error));
    });
    const make = async () => {
      await desk.room.readAll();
      const pages = desk.pages.get().filter(({ id }) => only?.has(id) ?? true);
      const sets = handoutSets(desk, { title, pages, choice });
      const notes = format === 'slides' ? await notesOf(desk, pages) : new Map<string, string>();
      const whole = sets.map((set) => ({
        ...set,
        pages: [...set.pages.map((handed) => withNotes(handed, notes)), ...after],
      }));
      return remote.make(whole, orderOf(desk, title, { ...choice, format }, foot), proxy(host));
    };
    const made: MadeHandout = await Promise.race([make(), aborted]);
    return { ...made, losses };
  } catch (error) {
    const isMissing = error instanceof Error && error.message === PART_MISSING;
    throw isMissing ? new Error(t('handout.aPartIsMissing')) : error;
  } finally {
    isRunning = false;
    remote[releaseProxy]();
    worker.terminate();
  }
}

function orderOf(
  desk: PageDesk,
  title: string,
  { format, perSheet, scale, initials }: HandoutChoice & { format: MadeFormat },
  foot: string | undefined,
): HandoutOrder {
  return {
    title,
    format,
    perSheet,
    scale,
    language: document.documentElement.lang,
    people: calledBy(studentsOf(desk), initials).people,
    foot: hasFoot(format) ? foot : undefined,
    headers: authorised(desk.token),
  };
}

/** What the speaker has beside the pages of documents, by page; the teacher's alone. */
async function notesOf(desk: PageDesk, pages: readonly Page[]): Promise<ReadonlyMap<string, string>> {
  const notes = new Map<string, string>();
  if (!desk.isTeacher || desk.room.device !== undefined) return notes;
  for (const { id, surface } of pages) {
    if (surface.kind !== 'pdf') continue;
    const address = `/api/materials/${surface.material}/notes`;
    const { notes: all } = await request<{ notes: string[] }>('GET', address);
    const note = all[surface.index];
    if (note) notes.set(id, note);
  }
  return notes;
}

function withNotes(handed: HandoutPage, notes: ReadonlyMap<string, string>): HandoutPage {
  const own = notes.get(handed.page.id);
  return own === undefined ? handed : { ...handed, notes: own };
}

/** The words on an original and where they lie; of a web page its links too. */
async function layoutOf(desk: PageDesk, page: Page): ReturnType<HandoutHost['webLayout']> {
  if (page.surface.kind !== 'pdf') return webLayout(desk.room, page);
  const doc = await desk.surfaces.pdf(page.surface.material);
  const words = await findWords(page, await doc.getPage(page.surface.index + 1), desk.token);
  return { texts: words.lines(), links: [] };
}

async function pagePicture(desk: PageDesk, page: Page, part: Rect): Promise<PictureFile> {
  const canvas = await drawOriginal(desk, page, PICTURE_SCALE, part);
  return fileOf(canvas, page.surface.kind === 'web' ? 'jpeg' : 'png');
}

/** Draws what something else has to draw of a page, or, of a web page, of a part of it. */
async function drawOriginal(
  desk: PageDesk,
  page: Page,
  scale: number,
  part?: Rect,
): Promise<HTMLCanvasElement> {
  const { surface } = page;
  if (surface.kind === 'web')
    return drawWebPage(await desk.room.webPages.html(surface.material), page, scale, part);
  if (surface.kind !== 'pdf') throw new Error(t('handout.onlyPagesOfDocumentsAnd'));
  const doc = await desk.surfaces.pdf(surface.material);
  const original = await doc.getPage(surface.index + 1);
  const viewport = original.getViewport({ scale: scale * UNITS_PER_POINT });
  const canvas = document.createElement('canvas');
  canvas.width = Math.ceil(viewport.width);
  canvas.height = Math.ceil(viewport.height);
  await original.render({ canvas, viewport }).promise;
  return canvas;
}

async function fileOf(canvas: HTMLCanvasElement, type: PictureFile['type']): Promise<PictureFile> {
  const blob = await new Promise<Blob | null>((resolve) =>
    canvas.toBlob(resolve, `image/${type}`, JPEG_QUALITY),
  );
  canvas.width = 0;
  if (!blob) throw new Error(t('handout.aPageCouldNotBe'));
  return { bytes: new Uint8Array(await blob.arrayBuffer()), type };
}
