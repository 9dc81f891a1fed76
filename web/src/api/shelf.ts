import { queryOptions } from '@tanstack/react-query';
import { errorOf, request } from './http';

/** A teacher's own pictures for stamping. */
export const stampsQuery = queryOptions({
  queryKey: ['stamps'],
  queryFn: () => request<{ id: string }[]>('GET', '/api/shelf/pictures'),
});

export const stampFile = (id: string) => `/api/shelf/pictures/${id}/file`;
export const removeStamp = (id: string) => request<void>('DELETE', `/api/shelf/pictures/${id}`);

/** Keeps a PNG or JPEG as a stamp. Throws RequestError. */
export async function keepStamp(picture: Blob): Promise<{ id: string }> {
  const form = new FormData();
  form.append('file', picture, 'stamp');
  const response = await fetch('/api/shelf/pictures', { method: 'POST', body: form });
  const text = await response.text();
  if (!response.ok) throw errorOf(response.status, text);
  return JSON.parse(text) as { id: string };
}
