import { readShapes, surelyShape } from '@doodla/core/neaten';
import { expose } from 'comlink';

const worker = { readShapes, surelyShape };

export type ShapesWorker = typeof worker;

expose(worker);
