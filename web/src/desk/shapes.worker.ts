import { evenOut, readShapes, surelyShape } from '@doodla/core/neaten';
import { expose } from 'comlink';

const worker = { readShapes, surelyShape, evenOut };

export type ShapesWorker = typeof worker;

expose(worker);
