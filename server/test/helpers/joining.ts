import type { Asking, Seat } from '@doodla/core';
import type { TestClass } from './aClass.js';
import { LiveClient } from './live.js';
import type { Answer, TestServer } from './server.js';
import { Client } from './server.js';

/** A student in a class, with both logs open. */
export interface Pupil {
  id: string;
  live: LiveClient;
  token?: string;
}

interface With {
  token?: string;
  password?: string;
}

/** Asks to be let in by the code of a class. */
export function askIn(
  server: TestServer,
  { code }: Pick<TestClass, 'code'>,
  name: string,
  more: With = {},
): Promise<Answer<Seat & Asking & { message: string; code: string }>> {
  return new Client(server.url).send('POST', '/api/join', { code, name, ...more });
}

/** Makes students of a class. */
export function joiner(server: TestServer, { code, sitting }: Pick<TestClass, 'code' | 'sitting'>) {
  return async (name: string, more: With = {}): Promise<Pupil & { token: string }> => {
    const { body } = await askIn(server, { code }, name, more);
    const live = await LiveClient.connect(server.url, { token: body.token });
    await live.open(sitting);
    await live.enter(sitting);
    return { id: body.student.id, live, token: body.token };
  };
}
