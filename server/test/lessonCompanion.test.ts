import type { LogRef } from '@doodla/core';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { DevicesService } from '../src/devices/devices.service.js';
import { LogsService } from '../src/live/logs.service.js';
import { aClass } from './helpers/aClass.js';
import { LiveClient, strokeBy } from './helpers/live.js';
import type { TestServer } from './helpers/server.js';
import { Client, colleagueOf, signedIn, startServer } from './helpers/server.js';

interface Entered {
  kind: string;
  lesson: string;
  sitting?: string;
  token: string;
  code: string;
}

const DAY_MS = 24 * 60 * 60 * 1000;

let server: TestServer;
let teacher: Client;
let lesson: LogRef;
let sitting: LogRef;
let me: string;
let page: string;
let anyone: Client;

beforeAll(async () => {
  server = await startServer();
  teacher = await signedIn(server);
  anyone = new Client(server.url);
});
afterAll(() => server.remove());

beforeEach(async () => {
  const made = await aClass(server, teacher);
  made.live.close();
  ({ lesson, sitting, me } = made);
  page = made.pages[0]!.id;
});

const path = (rest = '') => `/api/lessons/${lesson.id}/devices${rest}`;
const enter = (code: string) => anyone.send<Entered>('POST', '/api/devices', { code });

async function paired(): Promise<string> {
  const { body } = await teacher.send<{ code: string; address: string }>('POST', path());
  expect(body.address).toBe(server.url);
  const entered = await enter(body.code);
  expect(entered.body).toMatchObject({ kind: 'companion', lesson: lesson.id });
  expect(entered.body.sitting).toBeUndefined();
  return entered.body.token;
}

function bring(token: string, id = lesson.id): Promise<Response> {
  const form = new FormData();
  form.append('file', new Blob(['<!doctype html><title>Live page</title><p>Words</p>']), 'page.html');
  return fetch(`${server.url}/api/lessons/${id}/webpages/live?width=1111`, {
    method: 'POST',
    headers: { authorization: `Bearer ${token}` },
    body: form,
  });
}

describe('a companion of a lesson that is being prepared', () => {
  it('brings a page in behind the others, writes on it as the teacher, and hears of what others write', async () => {
    const token = await paired();
    const companion = await LiveClient.connect(server.url, { token });
    expect((await companion.open(lesson)).actor).toMatchObject({ id: me, role: 'teacher' });
    const answer = await bring(token);
    expect(answer.status).toBe(201);
    const { page: brought } = (await answer.json()) as { page: string };
    const stored = [...(await server.app.get(LogsService).open(lesson.id)).pages.values()];
    const last = stored.sort((a, b) => (a.order < b.order ? -1 : 1)).at(-1);
    expect(last).toMatchObject({ id: brought, width: 1111, surface: { kind: 'web' } });
    const added = await companion.submit(lesson, [{ do: 'add', mark: strokeBy(me, brought) }]);
    expect(added.error).toBeUndefined();
    await expect.poll(() => companion.operations.length).toBeGreaterThan(0);
    companion.close();
  });

  it('is kept to its lesson: no other, no class, nothing of the account', async () => {
    const token = await paired();
    const bearer = { authorization: `Bearer ${token}` };
    const companion = await LiveClient.connect(server.url, { token });
    expect((await companion.open(sitting)).error?.code).toBe('not-found');
    expect((await companion.ask('turn', { sitting: sitting.id, page })).error?.code).toBe('not-found');
    const other = await aClass(server, teacher);
    other.live.close();
    expect((await companion.open(other.lesson)).error?.code).toBe('not-found');
    expect((await bring(token, other.lesson.id)).status).toBe(404);
    expect((await anyone.send('GET', '/api/lessons', undefined, bearer)).status).toBe(401);
    expect((await anyone.send('POST', path(), undefined, bearer)).status).toBe(401);
    companion.close();
  });

  it('is listed, is taken out at once, and does not come back', async () => {
    const token = await paired();
    const companion = await LiveClient.connect(server.url, { token });
    const { body } = await teacher.send<{ id: string; kind: string }[]>('GET', path());
    expect(body.map(({ kind }) => kind)).toEqual(['companion']);
    expect((await teacher.send('DELETE', path(`/${body[0]!.id}`))).status).toBe(204);
    await expect.poll(() => companion.socket.connected).toBe(false);
    await expect(LiveClient.connect(server.url, { token })).rejects.toThrow('sign-in');
    expect((await bring(token)).status).toBe(401);
    expect((await teacher.send('GET', path())).body).toEqual([]);
  });

  it('does not come in with a code that has ended, nor after its day, nor where the lesson is gone', async () => {
    const devices = server.app.get(DevicesService);
    const home = { lessonId: lesson.id };
    const late = await devices.invite(home, 'companion', Date.now() - 16 * 60_000);
    expect((await enter(late.code)).body.code).toBe('old-code');
    const yesterday = Date.now() - DAY_MS;
    const { code } = await devices.invite(home, 'companion', yesterday);
    const { id } = await devices.enter(code, yesterday);
    expect(await devices.present(id, yesterday)).toBeDefined();
    expect(await devices.present(id)).toBeUndefined();
    expect(await devices.listed(home)).toEqual([]);
    const token = await paired();
    await teacher.send('POST', `/api/sittings/${sitting.id}/end`, { drop: true });
    await teacher.send('DELETE', `/api/lessons/${lesson.id}`);
    expect((await bring(token)).status).toBe(401);
  });

  it('is let in by those who may change the lesson, by nobody else', async () => {
    expect((await anyone.send('POST', path())).status).toBe(401);
    const colleague = await colleagueOf(server, teacher, 'Bea');
    expect((await colleague.send('POST', path())).status).toBe(404);
  });
});
