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

const UNREACHABLE = 'The server cannot be reached. Please check the connection and try again.';

/** Sends JSON and returns the answer's JSON, or undefined where it has none. Throws RequestError. */
export async function request<T>(
  method: string,
  path: string,
  body?: object,
  signal?: AbortSignal,
): Promise<T> {
  const response = await fetch(path, {
    method,
    ...(signal && { signal }),
    ...(body instanceof FormData
      ? { body }
      : body && { body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } }),
  }).catch(() => {
    throw new RequestError(0, 'unreachable', UNREACHABLE);
  });
  const text = await response.text();
  if (!response.ok) throw errorOf(response.status, text);
  return (text === '' ? undefined : JSON.parse(text)) as T;
}

export function errorOf(status: number, text: string): RequestError {
  try {
    const { code, message } = JSON.parse(text) as { code: string; message: string };
    if (typeof message === 'string') return new RequestError(status, code, message);
  } catch {
    // Answered by something other than our server, such as a proxy.
  }
  return new RequestError(status, 'failed', UNREACHABLE);
}
