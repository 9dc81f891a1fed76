import type { ClassTable } from '@doodla/core/class-table';
import { askWorker } from '../material/limitedWorker';
import { t } from '../words';
import type { ClassTableWorker } from './classTable.worker';

/** Largest class list that is read, and how long that may take. */
const MOST_BYTES = 2e6;
const PATIENCE_MS = 10_000;

/** The table in a file of a class list, read in a worker. Rejects with a sentence, or the signal's reason. */
export async function readClassFile(file: File, signal: AbortSignal): Promise<ClassTable> {
  const tooLong = t('roster.fileTooLarge');
  if (file.size > MOST_BYTES) throw new Error(tooLong);
  const bytes = new Uint8Array(await file.arrayBuffer());
  const worker = new Worker(new URL('./classTable.worker.ts', import.meta.url), { type: 'module' });
  const table = await askWorker<ClassTableWorker, ClassTable | undefined>(
    worker,
    { patience: PATIENCE_MS, tooLong, signal },
    (remote) => remote.read(bytes),
  );
  if (!table) throw new Error(t('roster.noTableInIt'));
  return table;
}
