import type { LinkRequest, LookAtLinkRequest, SharedLinkDoor, SharedLinkSummary } from '@doodla/core';
import { queryOptions } from '@tanstack/react-query';
import { errorOf, fileForm, request } from './http';

/** The links to a lesson and its classes. */
export const linksQuery = (lesson: string) =>
  queryOptions({
    queryKey: ['links', lesson],
    queryFn: () => request<SharedLinkSummary[]>('GET', `/api/lessons/${lesson}/links`),
    staleTime: 0,
  });

/** Makes a link to pages, which are one HTML file, or to a packed explanation. */
export async function makeLink(lesson: string, what: LinkRequest, shown: Blob): Promise<SharedLinkSummary> {
  const link = await request<SharedLinkSummary>('POST', `/api/lessons/${lesson}/links`, what);
  await request<void>(
    'PUT',
    `/api/links/${link.id}/pages`,
    fileForm(shown, what.explanation === undefined ? 'pages.html' : 'explanation.zip'),
  );
  return link;
}

/** Takes a link back. */
export const removeLink = (id: string) => request<void>('DELETE', `/api/links/${id}`);

/** What a link is before it is opened. */
export const doorOf = (token: string) => request<SharedLinkDoor>('GET', `/api/shared/${token}`);

/** The pages that a link shows, as HTML, or the packed explanation that it plays. Throws RequestError. */
export async function shownBy(token: string, password: string | undefined): Promise<Blob> {
  const what: LookAtLinkRequest = password === undefined ? {} : { password };
  const response = await fetch(`/api/shared/${token}/pages`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify(what),
  }).catch(() => {
    throw errorOf(0, '');
  });
  if (!response.ok) throw errorOf(response.status, await response.text());
  return response.blob();
}
