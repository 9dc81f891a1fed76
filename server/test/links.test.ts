import 'reflect-metadata';
import type { SharedLinkDoor, SharedLinkSummary } from '@doodla/core';
import { createHash, randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { KEPT_MS, PurgeService } from '../src/lessons/purge.service.js';
import { FileStore } from '../src/storage/fileStore.js';
import type { TestClass } from './helpers/aClass.js';
import { aClass } from './helpers/aClass.js';
import type { TestServer } from './helpers/server.js';
import { Client, signedIn, startServer } from './helpers/server.js';

let server: TestServer;
let teacher: Client;
let anybody: Client;
let at: TestClass;

beforeAll(async () => {
  server = await startServer();
  teacher = await signedIn(server);
  anybody = new Client(server.url);
  at = await aClass(server, teacher);
  at.live.close();
});
afterAll(() => server.remove());

const PAGES = '<!doctype html><title>Rivers</title><p>What was written</p>';
const put = (id: string, who = teacher, text = PAGES) => {
  const form = new FormData();
  form.append('file', new Blob([text]), 'pages.html');
  return who.send('PUT', `/api/links/${id}/pages`, form);
};
const make = (set: object = {}, who = teacher) =>
  who.send<SharedLinkSummary>('POST', `/api/lessons/${at.lesson.id}/links`, {
    title: 'Rivers',
    mayDownload: true,
    ...set,
  });
const tokenOf = ({ url }: SharedLinkSummary) => url.split('/see/')[1]!;
const look = (token: string, body: object = {}) =>
  anybody.send<string & { code?: string }>('POST', `/api/shared/${token}/pages`, body);
const link = async (set: object = {}) => {
  const { body } = await make(set);
  await put(body.id);
  return { id: body.id, token: tokenOf(body) };
};

describe('a link', () => {
  it('shows its pages to anybody who has it, and nothing that could run', async () => {
    const { body } = await make();
    const token = tokenOf(body);
    expect((await look(token)).status).toBe(404);
    expect((await put(body.id)).status).toBe(204);
    const { body: door } = await anybody.send<SharedLinkDoor>('GET', `/api/shared/${token}`);
    expect(door).toEqual({ title: 'Rivers', plays: false, hasPassword: false, mayDownload: true });
    const shown = await look(token);
    expect(shown.body).toBe(PAGES);
    expect(shown.headers.get('Content-Security-Policy')).toMatch(/^sandbox; default-src 'none'/);
    expect(token.length).toBeGreaterThan(20);
  });

  it('asks for its password where it has one', async () => {
    const { token } = await link({ password: 'river' });
    expect((await anybody.send<SharedLinkDoor>('GET', `/api/shared/${token}`)).body.hasPassword).toBe(true);
    for (const wrong of [{}, { password: '' }, { password: 'River' }])
      expect((await look(token, wrong)).body.code).toBe('wrong-link-password');
    expect((await look(token, { password: 'river' })).body).toBe(PAGES);
  });

  it('shows nothing after its end, once it is taken back, or with its lesson deleted', async () => {
    const over = await link({ endsAt: Date.now() - 1000 });
    expect((await look(over.token)).body.code).toBe('link-gone');
    const soon = await link({ endsAt: Date.now() + 60_000 });
    expect((await look(soon.token)).body).toBe(PAGES);
    expect((await teacher.send('DELETE', `/api/links/${soon.id}`)).status).toBe(204);
    expect((await look(soon.token)).body.code).toBe('link-gone');
    const { token } = await link();
    await teacher.send('DELETE', `/api/lessons/${at.lesson.id}`);
    expect((await look(token)).body.code).toBe('link-gone');
    await teacher.send('POST', `/api/lessons/${at.lesson.id}/restore`);
    expect((await look(token)).body).toBe(PAGES);
  });

  it('is made, seen in the list and taken back by its teacher alone', async () => {
    const { id } = await link({ sitting: at.sitting.id });
    expect((await make({}, anybody)).status).toBe(401);
    expect((await put(id, anybody)).status).toBe(401);
    expect((await anybody.send('DELETE', `/api/links/${id}`)).status).toBe(401);
    expect((await anybody.send('GET', `/api/lessons/${at.lesson.id}/links`)).status).toBe(401);
    const list = await teacher.send<SharedLinkSummary[]>('GET', `/api/lessons/${at.lesson.id}/links`);
    expect(list.body.map((each) => each.id)).toContain(id);
    expect(JSON.stringify(list.body)).not.toContain('assword_hash');
    for (const wrong of [{ title: '' }, { mayDownload: 'x' }, { password: '' }, { sitting: at.lesson.id }])
      expect((await make(wrong)).status, JSON.stringify(wrong)).toBeGreaterThanOrEqual(400);
  });

  it('plays an explanation that is complete until that is dropped, and is not one of another lesson', async () => {
    const explained = async (finished: boolean, kind: 'lesson' | 'sitting' = 'lesson') => {
      const id = randomUUID();
      const said = { name: 'Loads', parts: null, stops: [], chapters: [], captions: [], finished };
      const of = kind === 'lesson' ? at.lesson.id : at.sitting.id;
      const place = `/api/logs/${kind}/${of}/explanations/${id}`;
      expect((await teacher.send('PUT', place, said)).status).toBe(204);
      return { id, place };
    };
    const { id: explanation, place } = await explained(true);
    const { id, token } = await link({ explanation });
    const { body: door } = await anybody.send<SharedLinkDoor>('GET', `/api/shared/${token}`);
    expect(door.plays).toBe(true);
    expect((await look(token)).headers.get('content-type')).toBe('application/zip');
    const { body: links } = await teacher.send<SharedLinkSummary[]>(
      'GET',
      `/api/lessons/${at.lesson.id}/links`,
    );
    expect(links.find((one) => one.id === id)?.explanation).toBe(explanation);

    await teacher.send('DELETE', place);
    expect((await look(token)).body.code).toBe('link-gone');
    expect((await make({ explanation })).status).toBe(404);
    await teacher.send('POST', place);
    expect((await look(token)).status).toBe(201);

    expect((await make({ explanation: (await explained(false)).id })).status).toBe(404);
    expect((await make({ explanation: randomUUID() })).status).toBe(404);
    expect((await make({ explanation: '../x' })).status).toBe(400);
    const ofClass = await explained(true, 'sitting');
    expect((await make({ explanation: ofClass.id })).status).toBe(404);
    expect((await make({ explanation: ofClass.id, sitting: at.sitting.id })).status).toBe(201);
  });

  it('goes with its class, and so does its file where no other link shows it', async () => {
    const { token } = await link({ sitting: at.sitting.id });
    const { token: other } = await link();
    const own = `${PAGES} of this class`;
    await put((await link({ sitting: at.sitting.id })).id, teacher, own);
    const sizeOf = () => server.app.get(FileStore).sizeOf(createHash('sha256').update(own).digest('hex'));
    expect(await sizeOf()).toBe(own.length);
    await teacher.send('DELETE', `/api/sittings/${at.sitting.id}`);
    expect((await look(token)).body.code).toBe('link-gone');
    const purge = server.app.get(PurgeService);
    await purge.purge(Date.now() + KEPT_MS + 60_000);
    expect((await look(token)).body.code).toBe('link-gone');
    expect(await sizeOf()).toBe(0);
    expect((await look(other)).body).toBe(PAGES);
  });
});
