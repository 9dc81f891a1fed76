import type { Response } from 'express';
import { Problem } from './problem.js';

/** What is told while something long goes on, and what ends it when nobody waits any more. */
export interface Progress {
  line(value: object): void;
  signal: AbortSignal;
}

/**
 * Answers in lines of JSON while something long goes on: what `work` tells meanwhile, at last what it returns, or
 * `{"error"}` with a sentence; `apology` where nothing better is known. A closed connection cancels.
 */
export async function answerInLines(
  response: Response,
  apology: string,
  work: (progress: Progress) => Promise<object>,
): Promise<void> {
  const abort = new AbortController();
  response.on('close', () => abort.abort());
  response.status(response.req.method === 'POST' ? 201 : 200).type('application/x-ndjson');
  const line = (value: object) => void response.write(`${JSON.stringify(value)}\n`);
  try {
    line(await work({ line, signal: abort.signal }));
  } catch (error) {
    line({ error: error instanceof Problem ? error.getResponse() : { code: 'failed', message: apology } });
  } finally {
    response.end();
  }
}
