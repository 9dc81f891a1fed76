import type { DeviceKind } from '@doodla/core';
import { request } from './http';

/** A display's or pad's place in a sitting, kept in the browser so that a reload comes back to it. */
export interface DevicePlace {
  kind: DeviceKind;
  sitting: string;
  lesson: string;
  token: string;
}

const key = (kind: DeviceKind) => `doodla.${kind}`;

/** A code that lets one display or pad in, and the address to open there. */
export const inviteDevice = (sitting: string, kind: DeviceKind) =>
  request<{ code: string; address: string }>('POST', `/api/sittings/${sitting}/devices`, { kind });

export const removeDevice = (sitting: string, device: string) =>
  request<void>('DELETE', `/api/sittings/${sitting}/devices/${device}`);

/** Comes in with a code. Throws RequestError that says what to do. */
export async function enterAsDevice(code: string): Promise<DevicePlace> {
  const place = await request<DevicePlace>('POST', '/api/devices', { code });
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
