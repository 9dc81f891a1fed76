import { makeArchive } from '../api/archive';
import { fetchStored } from '../api/http';
import { t } from '../words';
import { fileName } from './fileName';
import type { MadeHandout } from './handout.worker';

/** Part of the time that making it takes; the rest is fetching it. */
const MADE_PART = 0.8;

interface FetchOptions {
  title: string;
  signal: AbortSignal | undefined;
  onProgress(done: number, total: number): void;
}

/** The archive of a lesson with all its classes, which the server makes. Throws the signal's reason when aborted. */
export async function fetchArchive(
  lesson: string,
  { title, signal, onProgress }: FetchOptions,
): Promise<MadeHandout> {
  const address = await makeArchive(lesson, {
    signal,
    onProgress: (made, of) => onProgress(made * MADE_PART, of),
  });
  const response = await fetchStored(address, { signal }, t('handout.aPartIsMissing'));
  const total = Number(response.headers.get('Content-Length') ?? 0);
  const pieces: BlobPart[] = [];
  let done = 0;
  const reader = response.body!.getReader();
  for (let read = await reader.read(); !read.done; read = await reader.read()) {
    pieces.push(read.value);
    done += read.value.length;
    if (total > 0) onProgress(MADE_PART * total + done * (1 - MADE_PART), total);
  }
  return { name: fileName(title, 'lesson.zip'), blob: new Blob(pieces, { type: 'application/zip' }) };
}
