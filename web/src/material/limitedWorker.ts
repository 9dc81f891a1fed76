import type { Remote } from 'comlink';
import { releaseProxy, wrap } from 'comlink';

/** How long a worker may take in milliseconds, and what is said where it takes longer. */
interface Limit {
  patience: number;
  tooLong: string;
  signal: AbortSignal;
}

/** Asks a worker one thing and ends it. Rejects with the sentence where it takes too long, or with the signal's reason. */
export async function askWorker<W, Answer>(
  worker: Worker,
  { patience, tooLong, signal }: Limit,
  ask: (remote: Remote<W>) => Promise<Answer>,
): Promise<Answer> {
  const remote = wrap<W>(worker);
  let timer: ReturnType<typeof setTimeout> | undefined;
  try {
    const stopped = new Promise<never>((_, reject) => {
      timer = setTimeout(() => reject(new Error(tooLong)), patience);
      signal.addEventListener('abort', () => reject(signal.reason as Error));
    });
    return await Promise.race([ask(remote), stopped]);
  } finally {
    clearTimeout(timer);
    remote[releaseProxy]();
    worker.terminate();
  }
}
