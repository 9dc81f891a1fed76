import type {
  PlacedWord,
  ProgressLine,
  ReadingLanguage,
  ReadingProgress,
  ReadWordsRequest,
} from '@doodla/core';
import { sentenceOf } from '../words/sentences';
import { errorOf, RequestError } from './http';
import { linesOf } from './lines';

type Line = ProgressLine<ReadingProgress, { words: PlacedWord[] }>;

/** Has the words of a page read; `address` is where they are kept. Throws RequestError, or the signal's reason. */
export async function readWords(
  address: string,
  language: ReadingLanguage,
  { onProgress, signal }: { onProgress(progress: ReadingProgress): void; signal: AbortSignal },
): Promise<PlacedWord[]> {
  const response = await fetch(address, {
    method: 'POST',
    signal,
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ language } satisfies ReadWordsRequest),
  });
  if (!response.ok || !response.body) throw errorOf(response.status, await response.text());
  let words: PlacedWord[] | undefined;
  for await (const line of linesOf<Line>(response.body)) {
    if ('error' in line) throw new RequestError(422, line.error.code, sentenceOf(line.error));
    if ('words' in line) words = line.words;
    else onProgress(line);
  }
  return words ?? Promise.reject(errorOf(0, ''));
}
