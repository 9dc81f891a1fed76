import { request } from './http';

/** A student's place in a sitting, kept in the browser so that a reload comes back to it. */
export interface Place {
  sitting: string;
  lesson: string;
  student: { id: string; name: string; colour: string };
  token: string;
}

const key = (sitting: string) => `doodla.place.${sitting}`;

export const lookUpCode = (code: string) =>
  request<{ title: string }>('GET', `/api/join/${encodeURIComponent(code)}`);

export async function joinClass(code: string, name: string): Promise<Place> {
  const place = await request<Place>('POST', '/api/join', { code, name });
  localStorage.setItem(key(place.sitting), JSON.stringify(place));
  return place;
}

export function placeIn(sitting: string): Place | undefined {
  const stored = localStorage.getItem(key(sitting));
  return stored === null ? undefined : (JSON.parse(stored) as Place);
}
