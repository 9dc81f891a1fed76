import type { ClassTable } from '@doodla/core/class-table';
import { readClassTable, UnreadableTable } from '@doodla/core/class-table';
import { expose } from 'comlink';

const worker = {
  /** The table of a class list; undefined where the file is none. */
  read(bytes: Uint8Array): ClassTable | undefined {
    try {
      return readClassTable(bytes);
    } catch (error) {
      if (error instanceof UnreadableTable) return undefined;
      throw error;
    }
  },
};

export type ClassTableWorker = typeof worker;

expose(worker);
