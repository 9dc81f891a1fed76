import type { ReadFile } from '@doodla/core/formats';
import { t } from '../words';
import type { DrawingWorker } from './drawing.worker';
import { askWorker } from './limitedWorker';

/** Largest file that is read, and how long that may take. */
const MOST_BYTES = 30e6;
const PATIENCE_MS = 20_000;

/** What can become marks in a file of others, read in a worker. Rejects with a sentence, or the signal's reason. */
export async function readDrawingFile(
  file: File,
  room: { width: number; height: number },
  signal: AbortSignal,
): Promise<ReadFile> {
  const tooLong = t('material.drawingTooLarge');
  if (file.size > MOST_BYTES) throw new Error(tooLong);
  const bytes = new Uint8Array(await file.arrayBuffer());
  const worker = new Worker(new URL('./drawing.worker.ts', import.meta.url), { type: 'module' });
  const limit = { patience: PATIENCE_MS, tooLong, signal };
  const read = await askWorker<DrawingWorker, ReadFile | undefined>(worker, limit, (remote) =>
    remote.read(bytes, room),
  );
  if (!read || read.pages.every((page) => page.length === 0)) throw new Error(t('material.noDrawingInIt'));
  return read;
}
