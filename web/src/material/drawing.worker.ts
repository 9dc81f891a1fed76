import type { ReadFile } from '@doodla/core/formats';
import { readDrawing, UnreadableFile } from '@doodla/core/formats';
import { expose } from 'comlink';

const worker = {
  /** What can become marks in a file; undefined where it is none that can be read. */
  read(bytes: Uint8Array, room: { width: number; height: number }): ReadFile | undefined {
    try {
      return readDrawing(bytes, room);
    } catch (error) {
      if (error instanceof UnreadableFile) return undefined;
      throw error;
    }
  },
};

export type DrawingWorker = typeof worker;

expose(worker);
