import type { FormulaReading } from '@doodla/core/formula-ink';
import { learnedSigns, readFormula } from '@doodla/core/formula-ink';
import { expose } from 'comlink';
import { once } from './once';

const net = once(learnedSigns);

const worker = {
  /** What formula strokes may be, the likeliest first. */
  async read(strokes: readonly (readonly number[])[]): Promise<FormulaReading[]> {
    return readFormula(strokes, await net());
  },
};

export type FormulaInkWorker = typeof worker;

expose(worker);
