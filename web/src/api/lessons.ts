import type {
  AnnotationsReply,
  BlankLessonRequest,
  BlankSheet,
  ClassWords,
  Colleague,
  CopyPageRequest,
  CountReply,
  DoorReply,
  DoorRequest,
  EndRequest,
  Folder,
  FolderRequest,
  KeepPagesRequest,
  LessonDetail,
  LessonRequest,
  LessonSummary,
  MarksReply,
  NodRequest,
  OpenSitting,
  PagePlaceRequest,
  PageReply,
  PagesReply,
  PastSitting,
  Removal,
  SearchReply,
  SittingDetail,
  SittingSummary,
  StartRequest,
  TeamRequest,
  TitleRequest,
  ToLessonRequest,
  WebPageReply,
  WebPageRequest,
} from '@doodla/core';
import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { fileForm, request } from './http';
import { placeQuery } from './place';

/** Makes a lesson of one blank page; wide and plain where no sheet is given. */
export const createBlankLesson = (sheet?: BlankSheet) =>
  request<LessonSummary>('POST', '/api/lessons/blank', { sheet: sheet ?? null } satisfies BlankLessonRequest);

export const lessonsQuery = queryOptions({
  queryKey: ['lessons'],
  queryFn: () => request<LessonSummary[]>('GET', '/api/lessons'),
});

/** What was deleted and can be had back. */
export const trashQuery = queryOptions({
  queryKey: ['lessons', 'trash'],
  queryFn: () => request<LessonSummary[]>('GET', '/api/lessons/trash'),
});

export const foldersQuery = queryOptions({
  queryKey: ['folders'],
  queryFn: () => request<Folder[]>('GET', '/api/folders'),
});
export const createFolder = (folder: FolderRequest) => request<Folder>('POST', '/api/folders', folder);
export const changeFolder = (id: string, folder: FolderRequest) =>
  request<void>('PUT', `/api/folders/${id}`, folder);
/** Takes a folder away; what is in it moves to where the folder was. */
export const deleteFolder = (id: string) => request<void>('DELETE', `/api/folders/${id}`);

/** Milliseconds until a search that found no page is done again. */
const LOOK_AGAIN_MS = 2000;

/** What has all words of a question, or words that begin with them. */
export const searchQuery = (question: string) =>
  queryOptions({
    queryKey: ['search', question],
    queryFn: ({ signal }) =>
      request<SearchReply>('GET', `/api/search?${new URLSearchParams({ q: question })}`, undefined, {
        signal,
      }),
    enabled: question.trim() !== '',
    placeholderData: keepPreviousData,
    staleTime: 0,
    // What was written a moment ago is found a moment later.
    refetchInterval: ({ state: { data } }) => (data?.pages.length === 0 ? LOOK_AGAIN_MS : false),
  });

export const lessonQuery = (id: string) =>
  queryOptions({
    queryKey: ['lesson', id],
    queryFn: () => request<LessonDetail>('GET', `/api/lessons/${id}`),
  });

/** Colleagues who work on a lesson, beside the teacher whose it is. */
export const teamQuery = (id: string) =>
  queryOptions({
    queryKey: ['lesson', id, 'team'],
    queryFn: () => request<Colleague[]>('GET', `/api/lessons/${id}/team`),
    staleTime: 0,
  });
export const setTeam = (id: string, teachers: readonly string[]) =>
  request<void>('PUT', `/api/lessons/${id}/team`, { teachers } satisfies TeamRequest);
/** Leaves a lesson of somebody else's. */
export const leaveTeam = (id: string) => request<void>('DELETE', `/api/lessons/${id}/team/me`);

/** Classes that have not ended, to be gone on with. */
export const openSittingsQuery = queryOptions({
  queryKey: ['sittings'],
  queryFn: () => request<OpenSitting[]>('GET', '/api/sittings'),
});

/** The last classes that have ended, one of each group, newest first. */
export const pastSittingsQuery = queryOptions({
  queryKey: ['sittings', 'past'],
  queryFn: () => request<PastSitting[]>('GET', '/api/sittings/past'),
});

export const sittingQuery = (id: string) =>
  queryOptions({
    queryKey: ['sitting', id],
    queryFn: () => request<SittingDetail>('GET', `/api/sittings/${id}`),
  });

/** Says other things of a lesson; what is left out stays as it is. */
export const changeLesson = (id: string, what: LessonRequest) =>
  request<void>('PATCH', `/api/lessons/${id}`, what);
/** Makes a copy of a lesson with its prepared marks. */
export const copyLesson = (id: string, title: string) =>
  request<LessonSummary>('POST', `/api/lessons/${id}/copies`, { title } satisfies TitleRequest);
export const deleteLesson = (id: string) => request<void>('DELETE', `/api/lessons/${id}`);
export const restoreLesson = (id: string) => request<void>('POST', `/api/lessons/${id}/restore`);
export const startSitting = (lesson: string, title: string, page?: string) =>
  request<SittingSummary>('POST', `/api/lessons/${lesson}/sittings`, { title, page } satisfies StartRequest);
/** Copies a page, with what a class wrote on it where one is given, to the end of another lesson. */
export const copyPage = (lesson: string, page: string, to: string, sitting?: string) =>
  request<PageReply>('POST', `/api/lessons/${lesson}/pages/${page}/copies`, {
    to,
    sitting,
  } satisfies CopyPageRequest);
/** Puts a copy of a web page into a lesson. Throws RequestError. */
export const bringWebPage = (lesson: string, page: WebPageRequest, signal?: AbortSignal) =>
  request<WebPageReply>('POST', `/api/lessons/${lesson}/webpages`, page, { signal });

export function bringWebFile(lesson: string, file: File, place: PagePlaceRequest, signal?: AbortSignal) {
  const query = new URLSearchParams(placeQuery(place));
  const form = fileForm(file, file.name);
  return request<WebPageReply>('POST', `/api/lessons/${lesson}/webpages/file?${query}`, form, { signal });
}

/** Ends a class; its marks are kept under a title, or dropped, which can be taken back for a day. */
export const endSitting = (id: string, how: EndRequest) =>
  request<void>('POST', `/api/sittings/${id}/end`, how);
export const reopenSitting = (id: string) => request<void>('POST', `/api/sittings/${id}/reopen`);
export const dropSitting = (id: string) => request<void>('DELETE', `/api/sittings/${id}`);
export const restoreSitting = (id: string) => request<void>('POST', `/api/sittings/${id}/restore`);
export const renameSitting = (id: string, title: string) =>
  request<void>('PATCH', `/api/sittings/${id}`, { title } satisfies TitleRequest);
/** Copies marks of a class into its lesson: all, those of a page, or chosen ones. Returns the copies' ids. */
export const keepInLesson = (sitting: string, which: ToLessonRequest) =>
  request<MarksReply>('POST', `/api/sittings/${sitting}/prepared`, which);
/** Puts pages that were made in a class into its lesson too. */
export const keepPages = (sitting: string, pages: readonly string[]) =>
  request<PagesReply>('POST', `/api/sittings/${sitting}/kept-pages`, { pages } satisfies KeepPagesRequest);
/** Says who is let into a class. */
export const setDoor = (sitting: string, door: DoorRequest) =>
  request<DoorReply>('POST', `/api/sittings/${sitting}/door`, door);
/** What was taken off the pages of a class, newest first. */
export const removalsOf = (sitting: string) => request<Removal[]>('GET', `/api/sittings/${sitting}/removals`);
/** Puts back what was taken off and is still missing. */
export const putBack = (sitting: string, operation: string) =>
  request<void>('POST', `/api/sittings/${sitting}/removals/${operation}/back`);
/** Takes a student out of a class; what they wrote stays. */
export const takeOutStudent = (sitting: string, student: string) =>
  request<void>('DELETE', `/api/sittings/${sitting}/students/${student}`);
/** Lets somebody in who waits, or does not. */
export const nodToAsk = (sitting: string, ask: string, grant: boolean) =>
  request<void>('POST', `/api/sittings/${sitting}/asks/${ask}`, { grant } satisfies NodRequest);
/** Takes out everybody who is away. */
export const clearClass = (sitting: string) => request<CountReply>('POST', `/api/sittings/${sitting}/clear`);

/** Puts pages of a stored document into a lesson; `pages` names some of them, such as `1-3,7`. */
export function insertChosen(
  lesson: string,
  material: string,
  { pages, ...place }: PagePlaceRequest & { pages: string },
): Promise<PagesReply> {
  const query = new URLSearchParams({ pages, ...placeQuery(place) });
  return request('POST', `/api/lessons/${lesson}/documents/${material}?${query}`);
}

/** Makes what others have written on a stored document marks on its pages. */
export function annotationsToMarks(
  lesson: string,
  material: string,
  sitting: string | undefined,
): Promise<AnnotationsReply> {
  const query = new URLSearchParams(placeQuery({ sitting }));
  return request('POST', `/api/lessons/${lesson}/documents/${material}/annotations?${query}`);
}

/** What a class has said, noted down and answered. */
export const wordsQuery = (sitting: string) =>
  queryOptions({
    queryKey: ['words', sitting],
    queryFn: () => request<ClassWords>('GET', `/api/sittings/${sitting}/words`),
    staleTime: 0,
  });

/** Says what a lesson, or a class, looks like on the start page: a PNG. */
export const setCover = (of: 'lessons' | 'sittings', id: string, picture: Blob) =>
  request<void>('PUT', `/api/${of}/${id}/cover`, fileForm(picture, 'cover'));
