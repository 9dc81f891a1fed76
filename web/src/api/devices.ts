import type {
  DeviceCodeRequest,
  DeviceKind,
  DevicePlace,
  DeviceReply,
  InviteReply,
  InviteRequest,
} from '@doodla/core';
import { request } from './http';

const key = (kind: DeviceKind) => `doodla.${kind}`;

/** A code that lets one display or pad in, and the address to open there. */
export const inviteDevice = (sitting: string, kind: DeviceKind) =>
  request<InviteReply>('POST', `/api/sittings/${sitting}/devices`, { kind } satisfies InviteRequest);

export const removeDevice = (sitting: string, device: string) =>
  request<void>('DELETE', `/api/sittings/${sitting}/devices/${device}`);

/** A code that lets a companion into a lesson that is being prepared. */
export const inviteIntoLesson = (lesson: string) =>
  request<InviteReply>('POST', `/api/lessons/${lesson}/devices`);

export const lessonDevices = (lesson: string) =>
  request<DeviceReply[]>('GET', `/api/lessons/${lesson}/devices`);

export const removeFromLesson = (lesson: string, device: string) =>
  request<void>('DELETE', `/api/lessons/${lesson}/devices/${device}`);

/** Comes in with a code; the place is kept in the browser, so that a reload comes back to it. Throws RequestError that says what to do. */
export async function enterAsDevice(code: string): Promise<DevicePlace> {
  const place = await request<DevicePlace>('POST', '/api/devices', { code } satisfies DeviceCodeRequest);
  localStorage.setItem(key(place.kind), JSON.stringify(place));
  return place;
}

export function devicePlace(kind: DeviceKind): DevicePlace | undefined {
  const stored = localStorage.getItem(key(kind));
  return stored === null ? undefined : (JSON.parse(stored) as DevicePlace);
}

export function leaveAsDevice(kind: DeviceKind): void {
  localStorage.removeItem(key(kind));
}
