import type {
  PlacedWord,
  ProgressLine,
  ReadingLanguage,
  ReadingProgress,
  ReadWordsRequest,
} from '@doodla/core';
import { sentenceOf } from '../words/sentences';
import { errorOf, RequestError } from './http';

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
  for await (const line of linesOf(response.body)) {
    if ('error' in line) throw new RequestError(422, line.error.code, sentenceOf(line.error));
    if ('words' in line) words = line.words;
    else onProgress(line);
  }
  return words ?? Promise.reject(errorOf(0, ''));
}

async function* linesOf(body: ReadableStream<Uint8Array>): AsyncIterable<Line> {
  const reader = body.getReader();
  const decoder = new TextDecoder();
  let rest = '';
  for (let piece = await reader.read(); !piece.done; piece = await reader.read()) {
    const lines = (rest + decoder.decode(piece.value, { stream: true })).split('\n');
    rest = lines.pop()!;
    for (const line of lines) if (line !== '') yield JSON.parse(line) as Line;
  }
}
