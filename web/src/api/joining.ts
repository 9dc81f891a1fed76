import type { Asking, CodeReply, JoinRequest, LookRequest, Seat } from '@doodla/core';
import { request } from './http';

/** A student's place in a sitting, kept in the browser so that a reload comes back to it. */
export interface Place extends Seat {
  /** The code that it was joined by. */
  code: string;
}

const key = (sitting: string) => `doodla.place.${sitting}`;

/** What a code leads to, and what one needs there. Throws RequestError. */
export const lookUpCode = (code: string, password?: string) =>
  request<CodeReply>('POST', '/api/join/look', { code, password } satisfies LookRequest);

/** Joins a class, with the place that this device had in it before if it had one. */
export async function joinClass(code: string, name: string, password?: string): Promise<Place | Asking> {
  const token = placeBy(code)?.token;
  const asked: JoinRequest = { code, name, token, password };
  return kept(await request('POST', '/api/join', asked), code);
}

/** What became of a wish to be let in. Throws RequestError where the teacher said no, or nothing for long. */
export async function askedPlace({ ask }: Asking, code: string): Promise<Place | Asking> {
  return kept(await request('GET', `/api/join/asks/${ask}?code=${encodeURIComponent(code)}`), code);
}

function kept(answer: Seat | Asking, code: string): Place | Asking {
  if ('ask' in answer) return answer;
  const place = { ...answer, code: plain(code) };
  localStorage.setItem(key(place.sitting), JSON.stringify(place));
  return place;
}

/** The place that this device was last given by a code. */
export function placeBy(code: string): Place | undefined {
  const places = Object.keys(localStorage)
    .filter((name) => name.startsWith(key('')))
    .map((name) => JSON.parse(localStorage.getItem(name)!) as Place);
  return places.find((place) => place.code === plain(code));
}

/** A code without what people write between its letters. */
const plain = (code: string) => code.replace(/[^a-z\d]/gi, '').toUpperCase();

export function placeIn(sitting: string): Place | undefined {
  const stored = localStorage.getItem(key(sitting));
  return stored === null ? undefined : (JSON.parse(stored) as Place);
}
