import type { ShapesWorker } from './shapes.worker';
import { WorkerLink } from './workerLink';

const link = new WorkerLink<ShapesWorker>(
  () => new Worker(new URL('./shapes.worker.ts', import.meta.url), { type: 'module' }),
);

/** What the worker does, told later. */
export type Asked = {
  [Ask in keyof ShapesWorker]: (
    ...order: Parameters<ShapesWorker[Ask]>
  ) => Promise<ReturnType<ShapesWorker[Ask]>>;
};

const asked: Asked = {
  readShapes: (...order) => link.ask((worker) => worker.readShapes(...order)),
  surelyShape: (...order) => link.ask((worker) => worker.surelyShape(...order)),
  evenOut: (...order) => link.ask((worker) => worker.evenOut(...order)),
};

/** What the worker does. What is asked of it fails where it cannot be fetched. */
export function neatWorker(): Asked {
  return asked;
}
