import type { HandoutSources } from '@doodla/core/handout';
import { transfer } from 'comlink';
import { WorkerLink } from '../desk/workerLink';
import type { InkWorker } from './ink.worker';

/** More would wait for the one that puts everything together. */
const MOST = 3;

/**
 * Workers that work out ink while this one puts a handout together: one for each processor that is left, up to `MOST`.
 * They end with the worker that asks for them. Undefined where there is no processor left, or workers cannot have their own.
 */
export function inkHelpers(processors = navigator.hardwareConcurrency): HandoutSources['ink'] {
  const count = Math.min(MOST, processors - 1);
  if (!(count > 0) || typeof Worker === 'undefined') return undefined;
  const helpers = Array.from({ length: count }, () => {
    return new WorkerLink<InkWorker>(
      () => new Worker(new URL('./ink.worker.ts', import.meta.url), { type: 'module' }),
    );
  });
  let asked = 0;
  return (packed) => {
    const helper = helpers[asked++ % count]!;
    return helper.ask(({ write }) => write(transfer(packed, [packed.buffer])));
  };
}
