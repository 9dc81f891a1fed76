import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { io } from 'socket.io-client';
import { LogsService } from '../src/live/logs.service.js';
import { aClass } from './helpers/aClass.js';
import type { Client, TestServer } from './helpers/server.js';
import { signedIn, startServer } from './helpers/server.js';

const EXTENSION = 'chrome-extension://abcdefghijklmnopabcdefghijklmnop';
const PAGE =
  '<!doctype html><title>Live page</title><p onclick="alert(1)">Words</p><script>alert(1)</script>';

let server: TestServer;
let teacher: Client;
let sitting: string;
let token: string;

beforeAll(async () => {
  server = await startServer();
  teacher = await signedIn(server);
  const made = await aClass(server, teacher);
  made.live.close();
  sitting = made.sitting.id;
  const { body } = await teacher.send<{ code: string; address: string }>(
    'POST',
    `/api/sittings/${sitting}/devices`,
    { kind: 'companion' },
  );
  expect(body.address).toBe(server.url);
  const answer = await ask('/api/devices', { code: body.code });
  expect(answer.headers.get('access-control-allow-origin')).toBe(EXTENSION);
  ({ token } = (await answer.json()) as { token: string });
});
afterAll(() => server.remove());

/** What the companion sends, as a browser would. */
function ask(path: string, body: object | FormData, headers: Record<string, string> = {}): Promise<Response> {
  const isForm = body instanceof FormData;
  return fetch(server.url + path, {
    method: 'POST',
    headers: { origin: EXTENSION, ...(!isForm && { 'content-type': 'application/json' }), ...headers },
    body: isForm ? body : JSON.stringify(body),
  });
}

function pageFile(html = PAGE): FormData {
  const form = new FormData();
  form.append('file', new Blob([html], { type: 'text/html' }), 'page.html');
  return form;
}

const bearer = () => ({ authorization: `Bearer ${token}` });

describe('a companion', () => {
  it('brings a page in, which is cleaned and as wide as it was', async () => {
    const answer = await ask(`/api/sittings/${sitting}/webpages?width=1111`, pageFile(), bearer());
    expect(answer.status).toBe(201);
    const { page } = (await answer.json()) as { page: string };
    const stored = (await server.app.get(LogsService).open(sitting)).pages.get(page)!;
    expect(stored).toMatchObject({ width: 1111, title: 'Live page', surface: { kind: 'web' } });
    const { material } = stored.surface as { material: string };
    const file = `${server.url}/api/materials/${material}/file`;
    const copy = await (await fetch(file, { headers: { cookie: teacher.cookie } })).text();
    expect(copy).toContain('Words');
    expect(copy).not.toMatch(/<script|onclick/);
  });

  it('is told what is wrong with what it sends', async () => {
    const wide = await ask(`/api/sittings/${sitting}/webpages?width=99999`, pageFile(), bearer());
    expect(wide.status).toBe(400);
    const none = await ask(`/api/sittings/${sitting}/webpages`, pageFile('no page'), bearer());
    expect(((await none.json()) as { message: string }).message).toContain('page');
    expect((await ask(`/api/sittings/${sitting}/webpages`, pageFile())).status).toBe(401);
  });

  it('has what its token gives it, never what the browser’s cookies would', async () => {
    const cookie = teacher.cookie;
    expect(cookie).toMatch(/doodla=/);
    const asTeacher = await ask('/api/lessons', { title: 'Not by a companion' }, { cookie });
    expect(asTeacher.status).toBe(401);
    // Students have tokens too, and bring nothing in.
    const joined = await fetch(`${server.url}/api/sittings/${sitting}/webpages`, {
      method: 'POST',
      headers: { cookie, origin: 'https://elsewhere.example' },
      body: pageFile(),
    });
    expect(joined.status).toBe(403);
  });

  it('may ask before it sends, for what is its own and nothing else (Fetch standard, CORS-preflight)', async () => {
    const preflight = (path: string, origin = EXTENSION) =>
      fetch(server.url + path, {
        method: 'OPTIONS',
        headers: { origin, 'access-control-request-method': 'POST' },
      });
    const allowed = await preflight(`/api/sittings/${sitting}/pictures`);
    expect(allowed.status).toBe(204);
    expect(allowed.headers.get('access-control-allow-headers')).toContain('authorization');
    expect((await preflight('/api/lessons')).headers.get('access-control-allow-methods')).toBeNull();
    const site = await preflight('/api/devices', 'https://elsewhere.example');
    expect(site.headers.get('access-control-allow-origin')).toBeNull();
  });

  it('is connected by its token, where a website is not', async () => {
    const connects = (origin: string, auth: object) =>
      new Promise<boolean>((resolve) => {
        const socket = io(server.url, {
          path: '/live',
          transports: ['websocket'],
          auth,
          extraHeaders: { origin, cookie: teacher.cookie },
          reconnection: false,
          forceNew: true,
        });
        const done = (isIn: boolean) => {
          socket.disconnect();
          resolve(isIn);
        };
        socket.on('connect', () => done(true));
        socket.on('connect_error', () => done(false));
      });
    expect(await connects(EXTENSION, { token })).toBe(true);
    expect(await connects(EXTENSION, {})).toBe(false);
    expect(await connects('https://elsewhere.example', { token })).toBe(false);
  });
});
