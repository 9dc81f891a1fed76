import 'reflect-metadata';
import type { Explanation, ExplanationsReply, ExplanationSettings, LogRef } from '@doodla/core';
import { MOST_PIECE_BYTES } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { PurgeService } from '../src/lessons/purge.service.js';
import { FileStore } from '../src/storage/fileStore.js';
import type { TestClass } from './helpers/aClass.js';
import { aClass } from './helpers/aClass.js';
import type { Pupil } from './helpers/joining.js';
import { joiner } from './helpers/joining.js';
import type { TestServer } from './helpers/server.js';
import { Client, colleagueOf, signedIn, startServer } from './helpers/server.js';

let server: TestServer;
let teacher: Client;
let at: TestClass;
let wren: Pupil & { token: string };

beforeAll(async () => {
  server = await startServer();
  teacher = await signedIn(server);
});
afterAll(() => server.remove());
beforeEach(async () => {
  at = await aClass(server, teacher);
  wren = await joiner(server, at)('Wren');
});
afterEach(() => [at, wren].forEach(({ live }) => live.close()));

const path = (of = '', log: LogRef = at.sitting) => `/api/logs/${log.kind}/${log.id}/explanations${of}`;
const asWren = <T>(method: string, to: string, body?: object) =>
  new Client(server.url).send<T>(method, to, body, { Authorization: `Bearer ${wren.token}` });
const list = async (log = at.sitting) => (await teacher.send<ExplanationsReply>('GET', path('', log))).body;
const said = (set: Partial<ExplanationSettings> = {}): ExplanationSettings => ({
  name: 'Arches',
  parts: null,
  stops: [],
  chapters: [],
  captions: [],
  finished: true,
  ...set,
});

async function piece(take: string, number: number, bytes: string | Uint8Array, who = teacher.cookie) {
  const [, explanation] = take.split('/takes')[0]!.split('/');
  expect(explanation).toBeTruthy();
  const response = await fetch(`${server.url}${path(`${take}/${number}`)}`, {
    method: 'PUT',
    headers: { cookie: who, 'content-type': 'application/octet-stream', origin: server.url },
    body: bytes as BodyInit,
  });
  return response.status;
}

/** An explanation with one take. */
async function recorded(set: Partial<ExplanationSettings> = {}, log = at.sitting) {
  const [id, take] = [randomUUID(), randomUUID()];
  expect((await teacher.send('PUT', path(`/${id}`, log), said(set))).status).toBe(204);
  const head = { startedAt: 1_700_000_000_000, length: 4000, voice: 'audio/webm;codecs=opus' };
  expect((await teacher.send('PUT', path(`/${id}/takes/${take}`, log), head)).status).toBe(204);
  return { id, take, head, place: `/${id}/takes/${take}` };
}

describe('an explanation', () => {
  it('is kept piece by piece, in order, however often a piece comes, and told as it was recorded', async () => {
    const { id, take, head, place } = await recorded({ finished: false });
    for (const number of [1, 0, 1])
      expect(await piece(`${place}/voice`, number, `piece ${number};`)).toBe(204);
    expect(await piece(`${place}/voice`, 1, 'something else')).toBe(204);
    expect(await piece(`${place}/notes`, 0, '{"t":0}\n')).toBe(204);
    const voice = await teacher.send('GET', path(`${place}/voice`));
    expect(voice.body).toBe('piece 0;piece 1;');
    expect(voice.headers.get('content-type')).toBe('audio/webm;codecs=opus');
    expect((await teacher.send('GET', path(`${place}/notes`))).body).toEqual({ t: 0 });
    const longer = { ...head, length: 9000 };
    await teacher.send('PUT', path(place), longer);
    const { explanations, now, room } = await list();
    expect(explanations).toMatchObject([
      { id, name: 'Arches', finished: false, takes: [{ id: take, ...longer }] },
    ]);
    expect(Math.abs(now - Date.now())).toBeLessThan(5000);
    expect(room).toBeGreaterThan(0);
  });

  it('is changed by its teacher: its name, what of it plays, where it waits', async () => {
    const { id, take } = await recorded();
    const parts = [{ take, from: 500, length: 1000, voice: null }];
    const stops = [{ id: randomUUID(), take, from: 700, text: 'Draw the outline now', seconds: 30 }];
    const changed = said({ name: 'Arches again', parts, stops });
    expect((await teacher.send('PUT', path(`/${id}`), changed)).status).toBe(204);
    expect((await list()).explanations).toMatchObject([{ id, ...changed }]);
  });

  it('may be of a lesson that is prepared, and is not found in another log', async () => {
    const { id } = await recorded({}, at.lesson);
    expect((await list(at.lesson)).explanations.map((one) => one.id)).toEqual([id]);
    expect((await list()).explanations).toEqual([]);
    expect((await teacher.send('PUT', path(`/${id}`), said())).status).toBe(404);
    expect((await teacher.send('GET', path(`/${id}/takes/${randomUUID()}/voice`))).status).toBe(404);
  });

  it('is watched by students once it is finished and they are let, and changed by nobody else', async () => {
    const done = await recorded();
    const open = await recorded({ finished: false });
    await piece(`${done.place}/voice`, 0, 'sound');
    expect((await asWren('GET', path())).status).toBe(403);
    await at.live.ask('rules', { sitting: at.sitting.id, set: { replay: true } });
    const seen = (await asWren<ExplanationsReply>('GET', path())).body;
    expect(seen.explanations.map(({ id }) => id)).toEqual([done.id]);
    expect(seen.room).toBe(0);
    expect((await asWren('GET', path(`${done.place}/voice`))).body).toBe('sound');
    expect((await asWren('GET', path(`${open.place}/voice`))).status).toBe(404);
    expect((await asWren('PUT', path(`/${done.id}`), said())).status).toBe(403);
    expect((await asWren('DELETE', path(`/${done.id}`))).status).toBe(403);
    const eve = await colleagueOf(server, teacher, 'Eve');
    expect(await piece(`${done.place}/voice`, 1, 'noise', eve.cookie)).toBe(404);
    expect((await new Client(server.url).send('GET', path())).status).toBe(401);
  });

  it('is dropped, brought back, and for good a day later with its files', async () => {
    const { id, place } = await recorded();
    await piece(`${place}/voice`, 0, `a voice of its own ${id}`);
    expect((await teacher.send('DELETE', path(`/${id}`))).status).toBe(204);
    expect((await list()).explanations).toEqual([]);
    expect((await teacher.send('POST', path(`/${id}`))).status).toBe(204);
    expect((await list()).explanations).toHaveLength(1);
    expect((await teacher.send('POST', path(`/${id}`))).status).toBe(404);
    await teacher.send('DELETE', path(`/${id}`));
    const files = server.app.get(FileStore);
    const { createHash } = await import('node:crypto');
    const sha256 = createHash('sha256').update(`a voice of its own ${id}`).digest('hex');
    const days = (count: number) => Date.now() + count * 24 * 3600 * 1000;
    const purges = server.app.get(PurgeService);
    await purges.purge(days(0.5));
    expect(await files.sizeOf(sha256)).toBeGreaterThan(0);
    await purges.purge(days(1.5));
    await purges.purge(days(3));
    expect(await files.sizeOf(sha256)).toBe(0);
    expect((await teacher.send('POST', path(`/${id}`))).status).toBe(404);
  });

  it('lets go of a take that does not play, with what was recorded in it', async () => {
    const { id, take, head, place } = await recorded();
    await piece(`${place}/voice`, 0, 'a slip of the tongue');
    const other = randomUUID();
    await teacher.send('PUT', path(`/${id}/takes/${other}`), { ...head, startedAt: head.startedAt + 9000 });
    const drop = (which: string) => teacher.send('DELETE', path(`/${id}/takes/${which}`));
    expect((await drop(take)).body.code).toBe('take-plays');
    const parts = [{ take: other, from: 0, length: 1000 }];
    await teacher.send('PUT', path(`/${id}`), said({ parts }));
    expect((await drop(other)).status).toBe(409);
    expect((await asWren('DELETE', path(place))).status).toBe(403);
    expect((await drop(take)).status).toBe(204);
    expect((await list()).explanations[0]!.takes.map((one) => one.id)).toEqual([other]);
    expect((await teacher.send('GET', path(`${place}/voice`))).status).toBe(404);
  });

  it('refuses what is no part of one', async () => {
    const { id, take, head, place } = await recorded();
    const bad: Partial<Record<keyof Explanation, unknown>>[] = [
      { name: 7 },
      { name: 'x'.repeat(121) },
      { parts: [{ take: 'of them all', from: 0, length: 1 }] },
      { parts: [{ take, from: -1, length: 1 }] },
      { parts: [{ take, from: 0, length: 0 }] },
      { stops: [{ id: randomUUID(), take, from: 0, text: 'x'.repeat(301), seconds: null }] },
      { finished: 'yes' },
    ];
    for (const set of bad)
      expect((await teacher.send('PUT', path(`/${id}`), { ...said(), ...set })).status).toBe(400);
    for (const set of [
      { voice: 'text/html' },
      { voice: 'audio/webm\r\nX: y' },
      { length: -1 },
      { startedAt: 'now' },
    ])
      expect((await teacher.send('PUT', path(place), { ...head, ...set })).status).toBe(400);
    expect(await piece(`${place}/voice`, 0, new Uint8Array(MOST_PIECE_BYTES + 1))).toBe(413);
    expect(await piece(`${place}/voice`, 0, '')).toBe(413);
    expect(await piece(`${place}/film`, 0, 'x')).toBe(400);
    expect(await piece(`/${id}/takes/${randomUUID()}/voice`, 0, 'x')).toBe(404);
  });
});

describe('the sign that a class is recorded', () => {
  const light = (on: boolean) => at.live.ask('recording', { sitting: at.sitting.id, on });
  const seen = async () => (await wren.live.enter(at.sitting)).recording;

  it('is seen by everybody while it is', async () => {
    expect(await seen()).toBeNull();
    expect((await light(true)).error).toBeUndefined();
    expect(await seen()).toEqual({ told: false });
    await light(false);
    expect(await seen()).toBeNull();
  });

  it('says it in words where the school wants that', async () => {
    const limits = { maxUploadMb: 100, maxPages: 500, retentionDays: 180 };
    await teacher.send('PUT', '/api/school/limits', { ...limits, tellOfRecording: true });
    await light(true);
    expect(await seen()).toEqual({ told: true });
    await teacher.send('PUT', '/api/school/limits', { ...limits, tellOfRecording: false });
  });

  it('is the teacher’s alone to give', async () => {
    const asked = await wren.live.ask('recording', { sitting: at.sitting.id, on: true });
    expect(asked.error).toBeTruthy();
    expect(await seen()).toBeNull();
  });
});
