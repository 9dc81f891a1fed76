import 'reflect-metadata';
import type { ForgetReply, StudentData, StudentTrace } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import { allStored } from './helpers/testDatabase.js';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { aNote, aStroke, aText } from '../../core/test/helpers/marks.js';
import { SearchIndexService } from '../src/search/searchIndex.service.js';
import type { TestClass } from './helpers/aClass.js';
import { aClass } from './helpers/aClass.js';
import type { Pupil } from './helpers/joining.js';
import { joiner } from './helpers/joining.js';
import { LiveClient } from './helpers/live.js';
import type { TestServer } from './helpers/server.js';
import { Client, signedIn, startServer } from './helpers/server.js';

let server: TestServer;
let teacher: Client;
let at: TestClass;
let wren: Pupil;
let tove: Pupil;

const SECRET = 'Quagmire';
const get = <T>(what: string, name: string, who = teacher) =>
  who.send<T>('GET', `/api/students/${what}?name=${encodeURIComponent(name)}`);
const forget = (name: string, who = teacher) =>
  who.send<ForgetReply & { code?: string }>('POST', '/api/students/forget', { name });
const tell = (who: Pick<Pupil, 'live'>, event: string, message: object) =>
  who.live.ask(event, { sitting: at.sitting.id, ...message });

beforeAll(async () => {
  server = await startServer();
  teacher = await signedIn(server);
  at = await aClass(server, teacher, '8 Heron');
  const enter = joiner(server, at);
  [wren, tove] = [await enter('Wren Ashby'), await enter('Tove')];
  await tell(at, 'pens', { up: true });
  const page = at.pages[0]!.id;
  const by = (author: string) => ({ page, author });
  const put = async (who: Pick<Pupil, 'live'>, ...marks: object[]) => {
    const changes = marks.map((mark) => ({ do: 'add', mark }));
    expect((await who.live.submit(at.sitting, changes as never)).error).toBeUndefined();
  };
  await put(wren, aText({ ...by(wren.id), id: 'words', text: `${SECRET} is mine` }));
  await put(wren, aStroke({ ...by(wren.id), id: 'own', space: `student:${wren.id}` }));
  await put(tove, aText({ ...by(tove.id), id: 'toves', text: 'Tove stays' }));
  await put(at, aNote({ ...by(at.me), id: 'corrected', text: 'Well done', space: `student:${wren.id}` }));
  // What the teacher did to it is in the earlier states of the page.
  const changed = [{ do: 'patch', mark: 'words', set: { text: `${SECRET}, corrected` } }];
  expect((await at.live.submit(at.sitting, changed as never)).error).toBeUndefined();
  await tell(wren, 'say', { id: randomUUID(), words: `${SECRET} said` });
  await tell(tove, 'say', { id: randomUUID(), words: 'Tove said' });
  const id = randomUUID();
  const poll = { id, kind: 'words', question: 'Why?', options: [], anonymous: false, hidden: false };
  await tell(at, 'ask', { poll });
  await tell(wren, 'answer', { poll: id, value: `${SECRET} answered` });
  await teacher.send('POST', '/api/groups', { title: '8 Heron', names: ['Wren Ashby', 'Tove'] });
});
afterAll(() => server.remove());

describe('everything about one student', () => {
  it('is told and handed over to their teacher, and to nobody else', async () => {
    const { body } = await get<StudentTrace[]>('traces', 'wren ashby');
    expect(body).toMatchObject([{ title: '8 Heron', name: 'Wren Ashby', marks: 3, words: 1, isOpen: true }]);
    const { body: data } = await get<StudentData[]>('data', 'Wren Ashby');
    expect(data).toMatchObject([
      {
        name: 'Wren Ashby',
        class: { title: '8 Heron' },
        chat: [{ words: `${SECRET} said` }],
        answers: [{ question: 'Why?', value: `${SECRET} answered` }],
      },
    ]);
    expect(data[0]!.marks.map(({ id }) => id).sort()).toEqual(['corrected', 'own', 'words']);
    const nobody = new Client(server.url);
    expect((await get('traces', 'Wren Ashby', nobody)).status).toBe(401);
    expect((await forget('Wren Ashby', nobody)).status).toBe(401);
    const bearer = { authorization: `Bearer ${(wren as { token?: string }).token}` };
    expect((await nobody.send('GET', '/api/students/data?name=Tove', undefined, bearer)).status).toBe(401);
    expect((await get<StudentTrace[]>('traces', 'Nobody')).body).toEqual([]);
    expect((await get('traces', '')).status).toBe(400);
  });

  it('is not taken away while their class goes on', async () => {
    expect((await forget('Wren Ashby')).body.code).toBe('student-in-open-class');
    expect((await get<StudentTrace[]>('traces', 'Wren Ashby')).body).toHaveLength(1);
  });

  it('is taken away down to the earlier states of pages, and what others wrote stays', async () => {
    await server.app.get(SearchIndexService).settled();
    for (const { live } of [wren, tove, at]) live.close();
    await teacher.send('POST', `/api/sittings/${at.sitting.id}/end`, { drop: false });
    expect((await forget('WREN ASHBY')).body).toEqual({ classes: 1 });
    expect((await get<StudentTrace[]>('traces', 'Wren Ashby')).body).toEqual([]);

    const live = await LiveClient.connect(server.url, { cookie: teacher.cookie });
    await live.open(at.sitting);
    const { marks } = await live.snapshot(at.sitting);
    expect(marks.map(({ id }) => id)).toEqual(['toves']);
    live.close();
    const { body: history } = await teacher.send<object>(
      'GET',
      `/api/sittings/${at.sitting.id}/pages/${at.pages[0]!.id}/history`,
    );
    expect(JSON.stringify(history)).not.toContain(wren.id);
    const words = (await teacher.send<object>('GET', `/api/sittings/${at.sitting.id}/words`)).body;
    expect(JSON.stringify(words)).toContain('Tove said');
    expect(JSON.stringify(words)).not.toContain(SECRET);
    expect(JSON.stringify((await teacher.send<object>('GET', '/api/groups')).body)).not.toContain('Wren');
    await server.app.get(SearchIndexService).settled();
    expect(JSON.stringify((await teacher.send<object>('GET', `/api/search?q=${SECRET}`)).body)).not.toContain(
      '8 Heron',
    );

    // Not in any table, and not in the file itself once it has been tidied up.
    const stored = await allStored(server);
    for (const trace of [wren.id, 'Wren Ashby', `${SECRET} said`]) expect(stored).not.toContain(trace);
    expect(stored).toContain(tove.id);
  });
});
