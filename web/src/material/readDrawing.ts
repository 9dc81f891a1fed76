import type { ReadFile } from '@doodla/core/formats';
import { releaseProxy, wrap } from 'comlink';
import { t } from '../words';
import type { DrawingWorker } from './drawing.worker';

/** Largest file that is read, and how long that may take. */
const MOST_BYTES = 30e6;
const PATIENCE_MS = 20_000;

/** What can become marks in a file of others, read in a worker. Rejects with a sentence, or the signal's reason. */
export async function readDrawingFile(
  file: File,
  room: { width: number; height: number },
  signal: AbortSignal,
): Promise<ReadFile> {
  if (file.size > MOST_BYTES) throw new Error(t('material.drawingTooLarge'));
  const worker = new Worker(new URL('./drawing.worker.ts', import.meta.url), { type: 'module' });
  const remote = wrap<DrawingWorker>(worker);
  let timer: ReturnType<typeof setTimeout> | undefined;
  try {
    const stopped = new Promise<never>((_, reject) => {
      timer = setTimeout(() => reject(new Error(t('material.drawingTooLarge'))), PATIENCE_MS);
      signal.addEventListener('abort', () => reject(signal.reason as Error));
    });
    const bytes = new Uint8Array(await file.arrayBuffer());
    const read = await Promise.race([remote.read(bytes, room), stopped]);
    if (!read || read.pages.every((page) => page.length === 0)) throw new Error(t('material.noDrawingInIt'));
    return read;
  } finally {
    clearTimeout(timer);
    remote[releaseProxy]();
    worker.terminate();
  }
}
