import type {
  ShelfChangeRequest,
  ShelfContent,
  ShelfKeepRequest,
  ShelfQuestion,
  ShelfTakeRequest,
  ShelfThing,
  StoredReply,
} from '@doodla/core';
import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { fileForm, request } from './http';

/** A teacher's own pictures for stamping. */
export const stampsQuery = queryOptions({
  queryKey: ['stamps'],
  queryFn: () => request<StoredReply[]>('GET', '/api/shelf/pictures'),
});

export const stampFile = (id: string) => `/api/shelf/pictures/${id}/file`;
export const removeStamp = (id: string) => request<void>('DELETE', `/api/shelf/pictures/${id}`);

/** Keeps a PNG or JPEG as a stamp. Throws RequestError. */
export const keepStamp = (picture: Blob) =>
  request<StoredReply>('POST', '/api/shelf/pictures', fileForm(picture, 'stamp'));

export const THINGS_KEY = ['shelf'];

/** One's own things or those of the school, with all words of a question; all where it is empty. */
export const thingsQuery = ({ of, words }: ShelfQuestion) =>
  queryOptions({
    queryKey: [...THINGS_KEY, of, words],
    queryFn: ({ signal }) =>
      request<ShelfThing[]>('GET', `/api/shelf/things?${new URLSearchParams({ of, words })}`, undefined, {
        signal,
      }),
    placeholderData: keepPreviousData,
    staleTime: 0,
  });

const pathOf = (id: string) => `/api/shelf/things/${id}`;

export const thingPicture = (id: string) => `${pathOf(id)}/picture`;
export const keepThing = (what: ShelfKeepRequest) => request<ShelfThing>('POST', '/api/shelf/things', what);
/** Says what a thing looks like: a PNG. */
export const setThingPicture = (id: string, picture: Blob) =>
  request<void>('PUT', thingPicture(id), fileForm(picture, 'picture'));
export const takeThing = (id: string, to: ShelfTakeRequest) =>
  request<ShelfContent>('POST', `${pathOf(id)}/uses`, to);
export const changeThing = (id: string, change: ShelfChangeRequest) =>
  request<void>('PATCH', pathOf(id), change);
export const removeThing = (id: string) => request<void>('DELETE', pathOf(id));
/** Puts back what was taken off the shelf. */
export const restoreThing = (id: string) => request<void>('POST', `${pathOf(id)}/restored`);
