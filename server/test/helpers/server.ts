import type { NestExpressApplication } from '@nestjs/platform-express';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createApp, serve } from '../../src/app.js';
import { readSettings } from '../../src/settings/settings.js';
import { databaseFor, dropDatabaseOf } from './testDatabase.js';

export interface TestServer {
  app: NestExpressApplication;
  url: string;
  data: string;
  /** Stops the server; `start` again on the same data folder. */
  stop(): Promise<void>;
  remove(): Promise<void>;
}

export async function startServer(
  env: Record<string, string> = {},
  data = mkdtempSync(join(tmpdir(), 'doodla-')),
): Promise<TestServer> {
  const database = await databaseFor(data);
  const own = { DOODLA_PORT: '0', DOODLA_DATA: data, ...(database && { DOODLA_DATABASE: database }) };
  const settings = readSettings({ ...own, DOODLA_HOST: '127.0.0.1', ...env });
  const app = await createApp(settings);
  const port = await serve(app, settings);
  const stop = () => app.close();
  const remove = async () => {
    await stop();
    await dropDatabaseOf(data);
    rmSync(data, { recursive: true, force: true });
  };
  return { app, url: `http://127.0.0.1:${port}`, data, stop, remove };
}

export interface Answer<T> {
  status: number;
  body: T;
  headers: Headers;
}

/** A browser: keeps its cookie. */
export class Client {
  cookie = '';

  constructor(private readonly url: string) {}

  async send<T = { message: string; code: string }>(
    method: string,
    path: string,
    body?: object | FormData,
    headers: Record<string, string> = {},
  ): Promise<Answer<T>> {
    const isForm = body instanceof FormData;
    const response = await fetch(this.url + path, {
      method,
      headers: {
        ...(this.cookie && { cookie: this.cookie }),
        ...(body && !isForm && { 'content-type': 'application/json' }),
        ...headers,
      },
      ...(body && { body: isForm ? body : JSON.stringify(body) }),
    });
    const cookie = response.headers.getSetCookie()[0];
    if (cookie) this.cookie = cookie.split(';')[0]!;
    const text = await response.text();
    return { status: response.status, body: parse(text) as T, headers: response.headers };
  }

  /** Sends a PDF. Returns the last line of the answer. */
  async upload(
    name: string,
    bytes: Uint8Array,
  ): Promise<{ lesson?: { id: string; title: string }; code?: string; message?: string }> {
    const form = new FormData();
    form.append('file', new Blob([bytes as Uint8Array<ArrayBuffer>]), name);
    const { body } = await this.send<unknown>('POST', '/api/lessons', form);
    const last =
      typeof body === 'string' ? (JSON.parse(body.trim().split('\n').at(-1)!) as object) : (body as object);
    return 'error' in last ? (last.error as object) : last;
  }
}

function parse(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return text;
  }
}

export const ADA = { name: 'Ada Fenn', email: 'ada@school.example', password: 'chalk-and-board' };

/** A new teacher of the school, who has come by an invitation. */
export async function colleagueOf(server: TestServer, admin: Client, name: string): Promise<Client> {
  const invitation = { name, email: `${name.toLowerCase()}@school.example` };
  const { body } = await admin.send<{ url: string }>('POST', '/api/school/invitations', invitation);
  const client = new Client(server.url);
  const token = body.url.split('/invited/')[1]!;
  await client.send('POST', `/api/invitations/${token}`, { name, password: ADA.password });
  return client;
}

export async function signedIn(server: TestServer): Promise<Client> {
  const client = new Client(server.url);
  await client.send('POST', '/api/setup', ADA);
  return client;
}
