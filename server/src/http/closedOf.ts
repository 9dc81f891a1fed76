import type { Response } from 'express';

/** Aborted where whoever asked goes before the answer. */
export function closedOf(response: Response): AbortSignal {
  const abort = new AbortController();
  response.on('close', () => {
    if (!response.writableFinished) abort.abort(new Error('Whoever asked is gone.'));
  });
  return abort.signal;
}
