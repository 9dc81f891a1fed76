import type { MadeFile } from '@doodla/core/formats';
import {
  inkMlFile,
  slidesFile,
  svgFiles,
  webAnnotationsFile,
  webPageFile,
  zipFiles,
} from '@doodla/core/formats';
import type { HandoutPage, HandoutSources, Loss, TextPicture } from '@doodla/core/handout';
import { makePdf, onSheets, PER_SHEET } from '@doodla/core/handout';
import { expose } from 'comlink';
import { fontFiles } from '../canvas/fontFiles';
import { fileName } from './fileName';
import { inkHelpers } from './inkHelpers';
import type { HandoutOrder } from './handoutOrder';
import { ENDINGS, isByPage } from './handoutOrder';
import type { HandoutSet } from './handoutSets';
import { PART_MISSING } from './partMissing';
import { rasterFiles } from './rasterFiles';

/** What only the page can do for the worker. */
export interface HandoutHost {
  pagePicture: HandoutSources['pagePicture'];
  pageBitmap(page: HandoutPage['page'], scale: number): Promise<ImageBitmap>;
  webLayout: HandoutSources['webLayout'];
  /** Where a web page was fetched from. */
  address(material: string): Promise<string | undefined>;
  onProgress(done: number, total: number): void;
  onLoss(loss: Loss): void;
}

/** What was made: one file, or several that are packed. */
export interface MadeHandout {
  name: string;
  blob: Blob;
}

/** Pixels per page unit of text that is put in as a picture. */
const TEXT_PICTURE_SCALE = 4;

const worker = {
  async make(sets: HandoutSet[], order: HandoutOrder, host: HandoutHost): Promise<MadeHandout> {
    const isOne = sets.length === 1 && !(isByPage(order.format) && sets[0]!.pages.length > 1);
    const files = allFiles(sets, order, host);
    if (isOne) {
      const { name, bytes } = (await files.next()).value as MadeFile;
      return { name, blob: new Blob([bytes as BlobPart], { type: TYPES[order.format] }) };
    }
    const pieces: BlobPart[] = [];
    await zipFiles(files, (piece) => pieces.push(piece as BlobPart));
    return { name: fileName(order.title, 'zip'), blob: new Blob(pieces, { type: 'application/zip' }) };
  },
};

export type HandoutWorker = typeof worker;

const TYPES: Readonly<Record<HandoutOrder['format'], string>> = {
  pdf: 'application/pdf',
  annotated: 'application/pdf',
  print: 'text/html',
  png: 'image/png',
  webp: 'image/webp',
  svg: 'image/svg+xml',
  slides: 'application/vnd.openxmlformats-officedocument.presentationml.presentation',
  webpage: 'text/html',
  ink: 'application/inkml+xml',
  annotations: 'application/ld+json',
};

/** The files of all sets, one after the other; those of several sets that have one for each page in a folder each. */
async function* allFiles(
  sets: readonly HandoutSet[],
  order: HandoutOrder,
  host: HandoutHost,
): AsyncGenerator<MadeFile> {
  const total = sets.reduce((sum, { pages }) => sum + pages.length, 0);
  let before = 0;
  for (const set of sets) {
    const onProgress = (done: number) => host.onProgress(before + done, total);
    if (!isByPage(order.format)) {
      const bytes = await oneFile(set, order, host, onProgress);
      yield { name: fileName(set.name, ENDINGS[order.format]), bytes };
    } else {
      const folder = sets.length > 1 ? `${fileName(set.name)}/` : '';
      for await (const { name, bytes } of pageFiles(set, order, host, onProgress))
        yield {
          name:
            set.pages.length === 1 && folder === ''
              ? fileName(set.name, ENDINGS[order.format])
              : folder + name,
          bytes,
        };
    }
    before += set.pages.length;
  }
}

function pageFiles(
  { name, pages }: HandoutSet,
  { format, scale, foot, headers }: HandoutOrder,
  host: HandoutHost,
  onProgress: (done: number) => void,
): AsyncGenerator<MadeFile> {
  if (format === 'svg')
    return svgFiles(pages, sourcesOf(headers, host), { title: name, onProgress, ...(foot && { foot }) });
  const sources = {
    pageBitmap: (page: HandoutPage['page'], k: number) => host.pageBitmap(page, k),
    picture: async (material: string) => {
      const file = await picture(material, headers);
      return file && createImageBitmap(new Blob([file.bytes as BlobPart]));
    },
  };
  return rasterFiles(pages, sources, { type: format as 'png' | 'webp', scale, foot, onProgress });
}

async function oneFile(
  { name, pages }: HandoutSet,
  order: HandoutOrder,
  host: HandoutHost,
  onProgress: (done: number) => void,
): Promise<Uint8Array> {
  const { format, language, people, foot, perSheet, headers } = order;
  const sources = sourcesOf(headers, host);
  const options = { title: name, language, people, onProgress, ...(foot !== undefined && { foot }) };
  switch (format) {
    case 'slides':
      return slidesFile(pages, sources, options);
    case 'ink':
      return inkMlFile(pages, options);
    case 'annotations':
      return webAnnotationsFile(pages, await addresses(pages, host), options);
    case 'webpage':
      return webPageFile(pages, sources, options);
    case 'print':
      return webPageFile(
        pages,
        sources,
        options,
        perSheet === 1 ? { columns: 1, rows: 1 } : PER_SHEET[perSheet],
      );
    default: {
      const onLoss = (loss: Loss) => host.onLoss(loss);
      const marksAs = format === 'annotated' ? 'annotations' : 'drawn';
      const pdf = await makePdf(pages, sources, { ...options, marksAs, onLoss });
      return perSheet === 1 || format === 'annotated' ? pdf : onSheets(pdf, perSheet);
    }
  }
}

/** Where web pages are; those that came as a file have a name of ours. */
async function addresses(pages: readonly HandoutPage[], host: HandoutHost) {
  const known = new Map<string, string>();
  for (const { page } of pages)
    if (page.surface.kind === 'web') {
      const { material } = page.surface;
      known.set(material, (await host.address(material)) ?? `urn:doodla:material:${material}`);
    }
  return (material: string) => known.get(material);
}

/** Made when they are first needed: most handouts have little ink. */
const ink = inkHelpers();

function sourcesOf(headers: HandoutOrder['headers'], host: HandoutHost): HandoutSources {
  return {
    pdf: (material) => download(`/api/materials/${material}/file`, headers),
    font: (face) => download(fontFiles[face]),
    picture: (material) => picture(material, headers),
    textPicture,
    pagePicture: (page, part) => host.pagePicture(page, part),
    webLayout: (page) => host.webLayout(page),
    deflate,
    ...(ink && { ink }),
  };
}

/** By the browser's own compression, which is several times as fast as any script. */
async function deflate(bytes: Uint8Array): Promise<Uint8Array> {
  const packed = new Blob([bytes as BlobPart]).stream().pipeThrough(new CompressionStream('deflate'));
  return new Uint8Array(await new Response(packed).arrayBuffer());
}

async function download(url: string, headers: HandoutOrder['headers'] = {}): Promise<Uint8Array> {
  const response = await fetch(url, { headers });
  if (!response.ok) throw new Error(PART_MISSING);
  return new Uint8Array(await response.arrayBuffer());
}

async function picture(
  material: string,
  headers: HandoutOrder['headers'],
): ReturnType<HandoutSources['picture']> {
  const response = await fetch(`/api/pictures/${material}`, { headers });
  if (!response.ok) return undefined;
  const type = response.headers.get('Content-Type') === 'image/png' ? 'png' : 'jpeg';
  return { bytes: new Uint8Array(await response.arrayBuffer()), type };
}

const textPicture: HandoutSources['textPicture'] = async (item) => {
  const baseline = item.size;
  const [width, height] = [Math.max(1, item.width), item.size * 1.4];
  const canvas = new OffscreenCanvas(
    Math.ceil(width * TEXT_PICTURE_SCALE),
    Math.ceil(height * TEXT_PICTURE_SCALE),
  );
  const ctx = canvas.getContext('2d')!;
  ctx.scale(TEXT_PICTURE_SCALE, TEXT_PICTURE_SCALE);
  ctx.font = `${item.size}px sans-serif`;
  ctx.fillStyle = item.colour;
  ctx.fillText(item.text, 0, baseline, width);
  const picture: Omit<TextPicture, 'baseline'> = {
    bytes: await pngBytes(canvas),
    width: canvas.width / TEXT_PICTURE_SCALE,
    height: canvas.height / TEXT_PICTURE_SCALE,
  };
  return { ...picture, baseline };
};

async function pngBytes(canvas: OffscreenCanvas): Promise<Uint8Array> {
  return new Uint8Array(await (await canvas.convertToBlob({ type: 'image/png' })).arrayBuffer());
}

expose(worker);
