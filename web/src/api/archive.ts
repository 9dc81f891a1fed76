import type { ArchiveProgress, ArchiveReply, ProgressLine } from '@doodla/core';
import { sentenceOf } from '../words/sentences';
import { errorOf, RequestError } from './http';

interface MakeOptions {
  signal?: AbortSignal | undefined;
  onProgress(done: number, total: number): void;
}

type Line = ProgressLine<ArchiveProgress, ArchiveReply>;

/** Has the server make the archive of a lesson; an aborted signal cancels. Returns where it can be fetched, once. Throws RequestError. */
export async function makeArchive(lesson: string, { signal, onProgress }: MakeOptions): Promise<string> {
  const address = `/api/lessons/${lesson}/archives`;
  const response = await fetch(address, { method: 'POST', ...(signal && { signal }) }).catch(
    (error: unknown) => {
      if (signal?.aborted) throw error;
      throw errorOf(0, '');
    },
  );
  if (!response.ok) throw errorOf(response.status, await response.text());
  for await (const line of linesOf(response)) {
    if ('error' in line) throw new RequestError(422, line.error.code, sentenceOf(line.error));
    if ('archive' in line) return `${address}/${line.archive}`;
    onProgress(line.done, line.total);
  }
  throw errorOf(0, '');
}

async function* linesOf(response: Response): AsyncGenerator<Line> {
  const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader();
  let rest = '';
  for (let read = await reader.read(); !read.done; read = await reader.read()) {
    const parts = (rest + read.value).split('\n');
    rest = parts.pop()!;
    for (const part of parts) if (part !== '') yield JSON.parse(part) as Line;
  }
}
