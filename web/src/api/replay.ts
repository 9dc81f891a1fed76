import type {
  ChapterName,
  HistoryReply,
  LoggedOperation,
  LogRef,
  ProblemReply,
  ReplayHead,
  ReplayStop,
  StopPlace,
} from '@doodla/core';
import { unpackLogged } from '@doodla/core';
import type { Recorded } from '@doodla/core/replay';
import { sentenceOf } from '../words/sentences';
import { authorised, errorOf, request, RequestError } from './http';
import { linesOf } from './lines';

type Line = ReplayHead | HistoryReply | { end: true } | { error: ProblemReply };

interface Asking {
  /** A student's. */
  token: string | undefined;
  signal: AbortSignal;
  /** Told how much of it is here, 0 to 1. */
  onProgress(share: number): void;
}

/** What is played, and where it waits. */
export interface RecordedWithStops extends Recorded {
  readonly stops: readonly ReplayStop[];
}

/** All that was done in a log, as far as one may see it. Throws RequestError, or the signal's reason. */
export async function fetchRecorded(
  { kind, id }: LogRef,
  { token, signal, onProgress }: Asking,
): Promise<RecordedWithStops> {
  const response = await fetch(`/api/logs/${kind}/${id}/replay`, {
    headers: authorised(token),
    signal,
  }).catch((error: unknown) => {
    throw signal.aborted ? error : errorOf(0, '');
  });
  if (!response.ok || !response.body) throw errorOf(response.status, await response.text());
  let head: ReplayHead = { count: 0, turns: [], stops: [] };
  const operations: LoggedOperation[] = [];
  for await (const line of linesOf<Line>(response.body)) {
    if ('error' in line) throw new RequestError(422, line.error.code, sentenceOf(line.error));
    if ('end' in line) return { ...head, operations };
    if ('steps' in line) operations.push(...line.steps.map(unpackLogged));
    else head = line;
    onProgress(operations.length / Math.max(1, head.count));
  }
  // Without its end it is not whole: the connection was lost.
  throw errorOf(0, '');
}

const stopsOf = ({ kind, id }: LogRef) => `/api/logs/${kind}/${id}/stops`;

export const addStop = (log: LogRef, place: StopPlace) => request<ReplayStop>('POST', stopsOf(log), place);

export const changeStop = (log: LogRef, { id, ...place }: ReplayStop) =>
  request<void>('PUT', `${stopsOf(log)}/${id}`, place);

export const removeStop = (log: LogRef, id: string) => request<void>('DELETE', `${stopsOf(log)}/${id}`);

/** Names a chapter of a class; an empty name is that of its page. */
export const nameChapter = (sitting: string, chapter: number, name: string) =>
  request<void>('PUT', `/api/logs/sitting/${sitting}/chapters/${chapter}`, { name } satisfies ChapterName);
