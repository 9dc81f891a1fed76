import type { PourOptions, Raster } from '@doodla/core/fill';
import { pour } from '@doodla/core/fill';
import { expose } from 'comlink';

const worker = { pour: (raster: Raster, options: PourOptions) => pour(raster, options) };

export type PourWorker = typeof worker;

expose(worker);
