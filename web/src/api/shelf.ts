import type { StoredReply } from '@doodla/core';
import { queryOptions } from '@tanstack/react-query';
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
