import type { WrittenInk } from '@doodla/core/handout/ink';
import { writeInk } from '@doodla/core/handout/ink';
import { expose, transfer } from 'comlink';

const worker = {
  write(packed: Float64Array): WrittenInk {
    const written = writeInk(packed);
    return transfer(written, [written.bytes.buffer, written.ends.buffer]);
  },
};

export type InkWorker = typeof worker;

expose(worker);
