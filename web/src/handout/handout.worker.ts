import type { HandoutPage, HandoutSources, Loss, TextPicture } from '@doodla/core/handout';
import { makePdf } from '@doodla/core/handout';
import { expose } from 'comlink';
import { fontFiles } from '../canvas/fontFiles';
import { PART_MISSING } from './partMissing';

/** What only the page can do for the worker. */
export interface HandoutHost {
  pagePicture: HandoutSources['pagePicture'];
  webLayout: HandoutSources['webLayout'];
  onProgress(done: number, total: number): void;
  onLoss(loss: Loss): void;
}

/** What a handout is called, and what whoever makes it shows the server to be let in. */
export interface HandoutOrder {
  title: string;
  headers: Record<string, string>;
}

/** Pixels per page unit of text that is put in as a picture. */
const TEXT_PICTURE_SCALE = 4;

const worker = {
  makePdf(pages: HandoutPage[], { title, headers }: HandoutOrder, host: HandoutHost): Promise<Uint8Array> {
    const sources: HandoutSources = {
      pdf: (material) => download(`/api/materials/${material}/file`, headers),
      font: (face) => download(fontFiles[face]),
      picture: (material) => picture(material, headers),
      textPicture,
      pagePicture: (page, part) => host.pagePicture(page, part),
      webLayout: (page) => host.webLayout(page),
    };
    return makePdf(pages, sources, {
      title,
      onProgress: (done, total) => void host.onProgress(done, total),
      onLoss: (loss) => void host.onLoss(loss),
    });
  },
};

export type HandoutWorker = typeof worker;

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
