import type { MarkBody } from '../marks/markBody.js';

/** A mark that was read from a file, with what is known of who made it and when. */
export interface ReadMark {
  body: MarkBody;
  credit?: string;
  createdAt?: number;
}

/** Thrown where a file is not what it says it is. */
export class UnreadableFile extends Error {
  override name = 'UnreadableFile';
}
