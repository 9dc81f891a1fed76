import { wrap } from 'comlink';
import type { HeicWorker } from './heic.worker';

/** Brands of still pictures in HEIF files (ISO/IEC 23008-12 annex B; ISO/IEC 14496-12 §4.3, File Type Box). */
const BRANDS = new Set(['heic', 'heix', 'heim', 'heis', 'mif1', 'msf1']);

/** Whether a file is an HEIF picture, as phones take them; browsers seldom show these. */
export async function isHeic(file: Blob): Promise<boolean> {
  const head = new TextDecoder('latin1').decode(await file.slice(0, 12).arrayBuffer());
  return head.slice(4, 8) === 'ftyp' && BRANDS.has(head.slice(8, 12));
}

/** Decodes an HEIF picture in a worker. Throws where it cannot be read. */
export async function decodeHeic(file: Blob): Promise<ImageBitmap> {
  const thread = new Worker(new URL('./heic.worker.ts', import.meta.url), { type: 'module' });
  const failed = new Promise<never>((_, reject) => {
    thread.onerror = () => reject(new Error('the decoder did not start'));
  });
  try {
    const work = wrap<HeicWorker>(thread).decode(await file.arrayBuffer());
    const { data, width, height } = await Promise.race([work, failed]);
    return await createImageBitmap(new ImageData(data, width, height));
  } finally {
    thread.terminate();
  }
}
