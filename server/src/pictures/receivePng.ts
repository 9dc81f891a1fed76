import type { Request, Response } from 'express';
import { rm } from 'node:fs/promises';
import { Problem } from '../http/problem.js';
import { receiveUpload } from '../http/upload.js';
import type { FileStore } from '../storage/fileStore.js';
import { checkedType } from './checkedType.js';

/** Small pictures of things, as browsers draw them; megabytes. */
const MOST_MB = 1;

/** Receives and stores a small PNG, and returns its hash. Throws Problem where it is something else. */
export async function receivePng(request: Request, response: Response, files: FileStore): Promise<string> {
  const upload = await receiveUpload(request, response, files, { maxMb: MOST_MB, room: Infinity });
  try {
    if ((await checkedType(upload.path)) === 'png') return await files.take(upload);
    throw new Problem(
      415,
      'not-a-picture',
      'This file is not a picture that can be shown. Please choose a PNG or JPEG.',
    );
  } finally {
    await rm(upload.path, { force: true });
  }
}
