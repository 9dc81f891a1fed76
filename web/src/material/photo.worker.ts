import type { Corners, Photo } from '@doodla/core/photo';
import { cleanPaper, straighten } from '@doodla/core/photo';
import { expose, transfer } from 'comlink';

const worker = {
  /** The sheet between four corners of a photo; with clean paper if wanted. */
  straighten(photo: Photo, corners: Corners, clean: boolean): Photo {
    const sheet = straighten(photo, corners);
    const made = clean ? cleanPaper(sheet) : sheet;
    return transfer(made, [made.data.buffer]);
  },
};

export type PhotoWorker = typeof worker;

expose(worker);
