import type {
  Explanation,
  ExplanationSettings,
  ExplanationsReply,
  LogRef,
  MediaTrack,
  Take,
  Track,
} from '@doodla/core';
import type { Noted } from '@doodla/core/explain';
import { readNoted } from '@doodla/core/explain';
import type { Caller } from './http';
import { fetchStored, request, sendBytes } from './http';

const explanationsOf = ({ kind, id }: LogRef) => `/api/logs/${kind}/${id}/explanations`;
const takeOf = (log: LogRef, explanation: string, take: string) =>
  `${explanationsOf(log)}/${explanation}/takes/${take}`;

/** The explanations of a lesson or class that one may watch, the last first. */
export const listExplanations = (log: LogRef, caller: Caller = {}) =>
  request<ExplanationsReply>('GET', explanationsOf(log), undefined, caller);

/** Keeps what is said of an explanation; the first time makes it. */
export const putExplanation = (log: LogRef, id: string, said: ExplanationSettings) =>
  request<void>('PUT', `${explanationsOf(log)}/${id}`, said);

export const dropExplanation = (log: LogRef, id: string) =>
  request<void>('DELETE', `${explanationsOf(log)}/${id}`);

export const bringExplanationBack = (log: LogRef, id: string) =>
  request<void>('POST', `${explanationsOf(log)}/${id}`);

export const putTake = (log: LogRef, explanation: string, { id, ...take }: Take) =>
  request<void>('PUT', takeOf(log, explanation, id), take);

/** Drops a take for good. */
export const dropTake = (log: LogRef, explanation: string, take: string) =>
  request<void>('DELETE', takeOf(log, explanation, take));

/** A piece of a take's track, by its number from 0. */
export interface Piece {
  explanation: string;
  take: string;
  track: Track;
  number: number;
  bytes: Uint8Array<ArrayBuffer>;
}

export const putPiece = (log: LogRef, { explanation, take, track, number, bytes }: Piece) =>
  sendBytes(`${takeOf(log, explanation, take)}/${track}/${number}`, bytes);

/** The sound or video of a take, as the browser recorded it. */
export async function fetchTrack(
  log: LogRef,
  explanation: string,
  { take, track }: { take: string; track: MediaTrack },
  caller: Caller,
): Promise<Blob> {
  const response = await fetchStored(`${takeOf(log, explanation, take)}/${track}`, caller);
  return response.blob();
}

/** What was noted in each take of an explanation, by its id. */
export async function fetchNoted(
  log: LogRef,
  { id, takes }: Pick<Explanation, 'id' | 'takes'>,
  caller: Caller,
): Promise<Map<string, Noted[]>> {
  const noted = new Map<string, Noted[]>();
  for (const take of takes) {
    const response = await fetchStored(`${takeOf(log, id, take.id)}/notes`, caller);
    noted.set(take.id, readNoted(await response.text()));
  }
  return noted;
}
