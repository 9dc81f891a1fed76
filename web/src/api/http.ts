import type { ProblemReply } from '@doodla/core';
import { t } from '../words';
import { sentenceOf } from '../words/sentences';

/** A request that the server refused. The message is fit to be shown. */
export class RequestError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
  ) {
    super(message);
    this.name = 'RequestError';
  }
}

/** Who asks, where it is not a teacher with a cookie, and what ends the asking. */
export interface Caller {
  /** A student's or device's. */
  token?: string | undefined;
  signal?: AbortSignal | undefined;
}

const UNREACHABLE = t('api.theServerCannotBeReached');

/** The header by which the server knows a student or device. */
export function authorised(token: string | undefined): Record<string, string> {
  return token === undefined ? {} : { Authorization: `Bearer ${token}` };
}

/** Fetches something that is stored. Throws RequestError, with `problem` for its sentence where one is given. */
export async function fetchStored(
  path: string,
  { token, signal }: Caller = {},
  problem = UNREACHABLE,
): Promise<Response> {
  const response = await fetch(path, { headers: authorised(token), ...(signal && { signal }) }).catch(
    (error: unknown) => {
      if (signal?.aborted) throw error;
      throw new RequestError(0, 'unreachable', problem);
    },
  );
  if (!response.ok) throw new RequestError(response.status, 'failed', problem);
  return response;
}

/** Sends JSON or a form and returns the answer's JSON, or undefined where it has none. Throws RequestError. */
export async function request<Reply>(
  method: string,
  path: string,
  body?: object,
  { token, signal }: Caller = {},
): Promise<Reply> {
  const isForm = body instanceof FormData;
  const response = await fetch(path, {
    method,
    ...(signal && { signal }),
    headers: { ...authorised(token), ...(body && !isForm && { 'Content-Type': 'application/json' }) },
    ...(body && { body: isForm ? body : JSON.stringify(body) }),
  }).catch(() => {
    throw new RequestError(0, 'unreachable', UNREACHABLE);
  });
  const text = await response.text();
  if (!response.ok) throw errorOf(response.status, text);
  return (text === '' ? undefined : JSON.parse(text)) as Reply;
}

/** Sends bytes as they are. Throws RequestError. */
export async function sendBytes(path: string, bytes: Uint8Array<ArrayBuffer>): Promise<void> {
  const headers = { 'Content-Type': 'application/octet-stream' };
  const response = await fetch(path, { method: 'PUT', headers, body: bytes }).catch(() => {
    throw new RequestError(0, 'unreachable', UNREACHABLE);
  });
  if (!response.ok) throw errorOf(response.status, await response.text());
}

/** A form with one file in it. */
export function fileForm(file: Blob, name: string): FormData {
  const form = new FormData();
  form.append('file', file, name);
  return form;
}

export function errorOf(status: number, text: string): RequestError {
  try {
    const problem = JSON.parse(text) as ProblemReply;
    if (typeof problem.message === 'string')
      return new RequestError(status, problem.code, sentenceOf(problem));
  } catch {
    // Answered by something other than our server, such as a proxy.
  }
  return new RequestError(status, 'failed', UNREACHABLE);
}
