import type { Request } from 'express';
import { Problem } from './problem.js';

/** The body of a request, as it is. Throws Problem where it is larger than `most` bytes, or breaks off. */
export async function receiveBytes(request: Request, most: number): Promise<Buffer> {
  const pieces: Buffer[] = [];
  let size = 0;
  try {
    for await (const piece of request as AsyncIterable<Buffer>) {
      size += piece.length;
      if (size > most) break;
      pieces.push(piece);
    }
  } catch {
    // Whoever sent it is gone, and hears of no reason.
    throw new Problem(400, 'broken-piece', 'What was sent broke off. It is sent again by itself.');
  }
  if (size > most || size === 0)
    throw new Problem(413, 'piece-size', 'This piece of a recording has not the size that one has.');
  return Buffer.concat(pieces, size);
}
