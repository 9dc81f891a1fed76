import type { Sheet, UndoEntry } from '@doodla/core';
import { queryOptions } from '@tanstack/react-query';
import { request } from './http';
import type { Place } from './place';
import { placeQuery } from './place';

export interface LessonSummary {
  id: string;
  title: string;
  /** Milliseconds since 1970-01-01 UTC. */
  usedAt: number;
}

export interface SittingSummary {
  id: string;
  title: string;
  code: string;
  openedAt: number;
  endedAt: number | null;
  /** When it was dropped; null while it is kept. */
  droppedAt: number | null;
}

/** A class that has not ended. */
export interface OpenSitting {
  id: string;
  title: string;
  code: string;
  lessonId: string;
  lessonTitle: string;
  openedAt: number;
}

export interface LessonDetail extends LessonSummary {
  sittings: SittingSummary[];
}

export interface SittingDetail extends SittingSummary {
  lessonId: string;
  lessonTitle: string;
  joinUrl: string;
}

/** Makes a lesson of one blank page; wide and plain where no sheet is given. */
export const createBlankLesson = (sheet?: Sheet) =>
  request<LessonSummary>('POST', '/api/lessons/blank', { sheet: sheet ?? null });

export const lessonsQuery = queryOptions({
  queryKey: ['lessons'],
  queryFn: () => request<LessonSummary[]>('GET', '/api/lessons'),
});

export const lessonQuery = (id: string) =>
  queryOptions({
    queryKey: ['lesson', id],
    queryFn: () => request<LessonDetail>('GET', `/api/lessons/${id}`),
  });

/** Classes that have not ended, to be gone on with. */
export const openSittingsQuery = queryOptions({
  queryKey: ['sittings'],
  queryFn: () => request<OpenSitting[]>('GET', '/api/sittings'),
});

export const sittingQuery = (id: string) =>
  queryOptions({
    queryKey: ['sitting', id],
    queryFn: () => request<SittingDetail>('GET', `/api/sittings/${id}`),
  });

export const renameLesson = (id: string, title: string) =>
  request<void>('PATCH', `/api/lessons/${id}`, { title });
export const deleteLesson = (id: string) => request<void>('DELETE', `/api/lessons/${id}`);
export const restoreLesson = (id: string) => request<void>('POST', `/api/lessons/${id}/restore`);
export const startSitting = (lesson: string, title: string, page?: string) =>
  request<SittingSummary>('POST', `/api/lessons/${lesson}/sittings`, { title, page });
/** Copies a page, with what a class wrote on it where one is given, to the end of another lesson. */
export const copyPage = (lesson: string, page: string, to: string, sitting?: string) =>
  request<{ page: string }>('POST', `/api/lessons/${lesson}/pages/${page}/copies`, { to, sitting });
/** Puts a copy of a web page into a lesson. Throws RequestError. */
export const bringWebPage = (
  lesson: string,
  address: string,
  place: Place & { replace?: string },
  signal?: AbortSignal,
) =>
  request<{ page: string; lost: number }>(
    'POST',
    `/api/lessons/${lesson}/webpages`,
    { address, ...place },
    signal,
  );

export function bringWebFile(lesson: string, file: File, place: Place, signal?: AbortSignal) {
  const form = new FormData();
  form.append('file', file, file.name);
  const query = new URLSearchParams(placeQuery(place));
  return request<{ page: string; lost: number }>(
    'POST',
    `/api/lessons/${lesson}/webpages/file?${query}`,
    form,
    signal,
  );
}

/** Ends a class; its marks are kept under a title, or dropped, which can be taken back for a day. */
export const endSitting = (id: string, how: { title?: string; drop: boolean }) =>
  request<void>('POST', `/api/sittings/${id}/end`, how);
export const reopenSitting = (id: string) => request<void>('POST', `/api/sittings/${id}/reopen`);
export const dropSitting = (id: string) => request<void>('DELETE', `/api/sittings/${id}`);
export const restoreSitting = (id: string) => request<void>('POST', `/api/sittings/${id}/restore`);
export const renameSitting = (id: string, title: string) =>
  request<void>('PATCH', `/api/sittings/${id}`, { title });
/** Copies marks of a class into its lesson: all, those of a page, or chosen ones. Returns the copies' ids. */
export const keepInLesson = (sitting: string, which: { page?: string; marks?: readonly string[] }) =>
  request<{ marks: string[] }>('POST', `/api/sittings/${sitting}/prepared`, which);
/** Puts pages that were made in a class into its lesson too. */
export const keepPages = (sitting: string, pages: readonly string[]) =>
  request<{ pages: string[] }>('POST', `/api/sittings/${sitting}/kept-pages`, { pages });
/** Lets nobody else into a class, or lets them in again. */
export const setDoor = (sitting: string, locked: boolean) =>
  request<void>('POST', `/api/sittings/${sitting}/door`, { locked });
/** Takes a student out of a class; what they wrote stays. */
export const takeOutStudent = (sitting: string, student: string) =>
  request<void>('DELETE', `/api/sittings/${sitting}/students/${student}`);
/** Lets somebody in who says that they are a student who is here, or does not. */
export const nodToAsk = (sitting: string, ask: string, grant: boolean) =>
  request<void>('POST', `/api/sittings/${sitting}/asks/${ask}`, { grant });
/** Takes out everybody who is away. */
export const clearClass = (sitting: string) =>
  request<{ count: number }>('POST', `/api/sittings/${sitting}/clear`);

/** Puts pages of a stored document into a lesson; `pages` names some of them, such as `1-3,7`. */
export function insertChosen(
  lesson: string,
  material: string,
  { pages, ...place }: Place & { pages: string },
): Promise<{ pages: string[] }> {
  const query = new URLSearchParams({ pages, ...placeQuery(place) });
  return request('POST', `/api/lessons/${lesson}/documents/${material}?${query}`);
}

/** Makes what others have written on a stored document marks on its pages. */
export function annotationsToMarks(
  lesson: string,
  material: string,
  sitting: string | undefined,
): Promise<{ marks: number; step: UndoEntry }> {
  const query = new URLSearchParams(placeQuery({ sitting }));
  return request('POST', `/api/lessons/${lesson}/documents/${material}/annotations?${query}`);
}
