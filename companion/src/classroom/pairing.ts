import type { DeviceCodeRequest, DevicePlace, LessonPlace } from '@doodla/core';
import { request } from '@web/api/http';

/** A place in a class, or in a lesson that is being prepared, and the origin of the server on which it is. */
export type Paired = (DevicePlace | LessonPlace) & { server: string };

const KEPT_AS = 'paired';
const SERVER_AS = 'server';

/** Goes into a class or lesson by a code, as a display does. Throws RequestError with a sentence. */
export async function pair(server: string, code: string): Promise<Paired> {
  const body: DeviceCodeRequest = { code };
  const place = await request<DevicePlace | LessonPlace>('POST', `${server}/api/devices`, body);
  const paired = { ...place, server };
  // Only for as long as the browser runs, and only for the extension's own pages: it writes as the teacher.
  await chrome.storage.session.set({ [KEPT_AS]: paired });
  await chrome.storage.local.set({ [SERVER_AS]: server });
  return paired;
}

/** The class or lesson that this browser is in, if any. */
export async function pairedBefore(): Promise<Paired | undefined> {
  const { [KEPT_AS]: paired } = await chrome.storage.session.get<Record<string, Paired>>(KEPT_AS);
  return paired;
}

/** The server of last time. */
export async function lastServer(): Promise<string> {
  const { [SERVER_AS]: server } = await chrome.storage.local.get<Record<string, string>>(SERVER_AS);
  return server ?? '';
}

export async function unpair(): Promise<void> {
  await chrome.storage.session.remove(KEPT_AS);
}
