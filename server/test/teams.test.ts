import type { Colleague, LessonDetail, LessonSummary } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { aText } from '../../core/test/helpers/marks.js';
import type { TestClass } from './helpers/aClass.js';
import { aClass } from './helpers/aClass.js';
import { LiveClient } from './helpers/live.js';
import { pdfWith } from './helpers/pdfs.js';
import type { TestServer } from './helpers/server.js';
import { Client, colleagueOf, signedIn, startServer } from './helpers/server.js';

let server: TestServer;
let ada: Client;
let bea: Client;
let beasId: string;
let at: TestClass;

beforeAll(async () => {
  server = await startServer();
  ada = await signedIn(server);
  bea = await colleagueOf(server, ada, 'Bea');
  at = await aClass(server, ada);
  const { body } = await ada.send<Colleague[]>('GET', '/api/school/colleagues');
  beasId = body[0]!.id;
});
afterAll(() => server.remove());

const path = () => `/api/lessons/${at.lesson.id}`;
const setTeam = (teachers: string[], who = ada) => who.send('PUT', `${path()}/team`, { teachers });
const live = (who: Client) => LiveClient.connect(server.url, { cookie: who.cookie });
const text = (author: string) => aText({ id: randomUUID(), page: at.pages[0]!.id, author, text: 'Together' });
const lessonsOf = async (who: Client) => (await who.send<LessonSummary[]>('GET', '/api/lessons')).body;

describe('a lesson that colleagues work on together', () => {
  it('is nobody else’s until its teacher says so', async () => {
    expect((await bea.send('GET', path())).status).toBe(404);
    expect((await setTeam([beasId], bea)).status).toBe(404);
    expect((await setTeam([randomUUID()])).body.code).toBe('no-such-colleague');
    expect((await setTeam(['not an id'])).status).toBe(400);
    expect(await lessonsOf(bea)).toEqual([]);
  });

  it('is listed, opened and written on by both, each seeing what the other does; its classes are not', async () => {
    await ada.send('PATCH', path(), { favourite: true, tags: ['load'] });
    expect((await setTeam([beasId])).status).toBe(204);
    expect((await ada.send('GET', `${path()}/team`)).body).toMatchObject([{ id: beasId, name: 'Bea' }]);
    expect(await lessonsOf(bea)).toMatchObject([
      { id: at.lesson.id, owner: 'Ada Fenn', favourite: false, tags: [] },
    ]);
    expect((await lessonsOf(ada))[0]).toMatchObject({ owner: null, tags: ['load'] });
    const { body: detail } = await bea.send<LessonDetail>('GET', path());
    expect([detail.owner, detail.sittings]).toEqual(['Ada Fenn', []]);
    expect((await bea.send('GET', `${path()}/cover`)).status).toBe(200);

    const hers = await live(bea);
    const { actor } = await hers.open(at.lesson);
    const mark = text(actor.id);
    expect((await hers.submit(at.lesson, [{ do: 'add', mark }])).error).toBeUndefined();
    await expect.poll(() => at.live.operations.some(({ log }) => log === at.lesson.id)).toBe(true);
    // A teacher of the lesson may change what the other one made.
    const change = await at.live.submit(at.lesson, [
      { do: 'patch', mark: mark.id, set: { text: 'By both' } },
    ]);
    expect(change.error).toBeUndefined();
    expect(await hers.open(at.sitting)).toMatchObject({ error: { code: 'a-colleagues-lesson' } });
    hers.close();
    for (const [method, where, body] of [
      ['PATCH', '', { title: 'Mine now' }],
      ['DELETE', '', undefined],
      ['POST', '/sittings', { title: 'Hers' }],
      ['GET', '/team', undefined],
      ['PUT', '/team', { teachers: [] }],
    ] as const)
      expect((await bea.send(method, path() + where, body)).body.code, `${method} ${where}`).toBe(
        'a-colleagues-lesson',
      );
  });

  it('has documents of both, which each of them and every class sees', async () => {
    await setTeam([beasId]);
    const form = new FormData();
    form.append('file', new Blob([new Uint8Array(await pdfWith([400, 300]))]), 'hers.pdf');
    expect((await bea.send('POST', `${path()}/documents`, form)).status).toBe(201);
    const { pages } = await at.live.snapshot(at.lesson);
    const surfaces = pages.map(({ surface }) => ('material' in surface ? surface.material : ''));
    const files = [...new Set(surfaces)];
    expect(files).toHaveLength(2);
    for (const who of [ada, bea])
      for (const file of files)
        expect((await who.send('GET', `/api/materials/${file}/file`)).status).toBe(200);
    const eve = await colleagueOf(server, ada, 'Eve');
    for (const file of files) expect((await eve.send('GET', `/api/materials/${file}/file`)).status).toBe(404);
    // A copy is one's own, also where nobody works on it together any more.
    const { body: copy } = await bea.send<LessonSummary>('POST', `${path()}/copies`, { title: 'My own' });
    await setTeam([]);
    const mine = await live(bea);
    await mine.open({ kind: 'lesson', id: copy.id });
    const own = (await mine.snapshot({ kind: 'lesson', id: copy.id })).pages;
    expect(own).toHaveLength(pages.length);
    for (const { surface } of own) {
      const file = 'material' in surface ? surface.material : '';
      expect((await bea.send('GET', `/api/materials/${file}/file`)).status).toBe(200);
    }
    mine.close();
  });

  it('is closed at once to whoever is taken out of it, and can be left', async () => {
    await setTeam([beasId]);
    const hers = await live(bea);
    const { actor } = await hers.open(at.lesson);
    const heard = () => hers.operations.length;
    await setTeam([]);
    const before = heard();
    expect((await hers.submit(at.lesson, [{ do: 'add', mark: text(actor.id) }])).error?.code).toBe(
      'not-open',
    );
    await at.live.submit(at.lesson, [{ do: 'add', mark: text(at.me) }]);
    expect(await hers.open(at.lesson)).toMatchObject({ error: { code: 'not-found' } });
    expect(heard()).toBe(before);
    hers.close();
    expect(await lessonsOf(bea)).not.toContainEqual(expect.objectContaining({ id: at.lesson.id }));
    await setTeam([beasId]);
    expect((await bea.send('DELETE', `${path()}/team/me`)).status).toBe(204);
    expect((await bea.send('GET', path())).status).toBe(404);
    expect((await ada.send<Colleague[]>('GET', `${path()}/team`)).body).toEqual([]);
  });
});
