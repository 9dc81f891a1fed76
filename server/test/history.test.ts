import 'reflect-metadata';
import type { HistoryReply, Mark, Space, UndoEntry } from '@doodla/core';
import { isIn, PageHistory, unpackLogged } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { aStroke, aText } from '../../core/test/helpers/marks.js';
import type { TestClass } from './helpers/aClass.js';
import { aClass } from './helpers/aClass.js';
import { joiner } from './helpers/joining.js';
import type { TestServer } from './helpers/server.js';
import { Client, signedIn, startServer } from './helpers/server.js';

let server: TestServer;
let teacher: Client;
let at: TestClass;
let page: string;

beforeAll(async () => {
  server = await startServer();
  teacher = await signedIn(server);
});
afterAll(() => server.remove());
beforeEach(async () => {
  at = await aClass(server, teacher);
  page = at.pages[0]!.id;
});
afterEach(() => at.live.close());

const path = (ref = at.sitting, of = page) => `/api/logs/${ref.kind}/${ref.id}/pages/${of}/history`;
const read = async (space: Space = 'class') => {
  const { body } = await teacher.send<HistoryReply>('GET', path());
  return new PageHistory(page, isIn(space), body.steps.map(unpackLogged));
};
const restore = (seq: number, space: Space = 'class') =>
  teacher.send<UndoEntry & { code: string }>('POST', path(), { space, seq });
const add = async (mark: Mark) => {
  const reply = await at.live.submit(at.sitting, [{ do: 'add', mark }]);
  expect(reply.error).toBeUndefined();
  return mark;
};
const stroke = (set: Parameters<typeof aStroke>[0] = {}) =>
  aStroke({ id: randomUUID(), page, author: at.me, ...set });
const marks = async () => {
  const { marks: all } = await at.live.snapshot(at.sitting);
  return all.sort((a, b) => (a.id < b.id ? -1 : 1));
};

describe('earlier states of a page', () => {
  it('are told step by step, and each is what the page was', async () => {
    const first = await add(stroke());
    const second = await add(aText({ id: randomUUID(), page, author: at.me }));
    await at.live.submit(at.sitting, [
      { do: 'patch', mark: second.id, set: { text: 'Arches push outwards' } },
    ]);
    await at.live.submit(at.sitting, [{ do: 'remove', mark: first.id }]);
    await add(stroke({ page: at.pages[1]!.id }));
    const history = await read();
    // The page itself came first.
    expect(history.steps.map(({ author }) => author)).toEqual(['server', at.me, at.me, at.me, at.me]);
    expect([0, 1, 2, 3, 4, 5].map((count) => history.after(count).marks.size)).toEqual([0, 0, 1, 2, 2, 1]);
    expect(history.after(4).marks.get(second.id)).toMatchObject({ text: 'Arches push outwards' });
    expect(history.after(4).marks.get(first.id)).toEqual(first);
  });

  it('come back as one new step, which can be undone', async () => {
    await add(stroke());
    const before = await marks();
    const { seq } = (await read()).steps.at(-1)!;
    await at.live.submit(at.sitting, [
      { do: 'remove', mark: before[0]!.id },
      { do: 'add', mark: stroke({ locked: true }) },
    ]);
    const wiped = await marks();
    const { status, body } = await restore(seq);
    expect(status).toBe(201);
    expect(body).toMatchObject({ pages: [page], ofPages: false });
    await expect.poll(marks).toEqual(before);
    await at.live.submit(at.sitting, [], undefined, body.id);
    await expect.poll(marks).toEqual(wiped);
    expect((await restore((await read()).steps.at(-1)!.seq)).body.code).toBe('as-it-was');
  });

  it('of the common page leave the copies of students alone', async () => {
    const wren = await joiner(server, at)('Wren');
    const copy = await add(stroke({ space: `student:${wren.id}` }));
    const common = await add(stroke());
    await restore(0);
    await expect.poll(marks).toEqual([copy]);
    await restore(0, `student:${wren.id}`);
    await expect.poll(marks).toEqual([]);
    const { steps } = await read();
    await restore(
      steps.find(({ operation: { changes } }) => JSON.stringify(changes).includes(common.id))!.seq,
    );
    await expect.poll(marks).toEqual([common]);
    wren.live.close();
  });

  it('are for the teacher of the class, and of pages that are there', async () => {
    await add(stroke());
    const wren = await joiner(server, at)('Wren');
    expect((await new Client(server.url).send('GET', path())).status).toBe(401);
    const student = new Client(server.url);
    const asStudent = { authorization: `Bearer ${wren.token}` };
    expect((await student.send('GET', path(), undefined, asStudent)).status).toBe(401);
    expect((await student.send('POST', path(), { space: 'class', seq: 0 }, asStudent)).status).toBe(401);
    expect((await teacher.send('GET', path({ kind: 'sitting', id: randomUUID() }))).status).toBe(404);
    expect((await teacher.send('POST', path(at.sitting, 'nowhere'), { space: 'class', seq: 0 })).status).toBe(
      404,
    );
    for (const bad of [{ seq: -1 }, { seq: 1.5 }, { seq: 'all' }, { space: 'everybody' }])
      expect((await teacher.send('POST', path(), { space: 'class', seq: 0, ...bad })).status).toBe(400);
    await teacher.send('POST', `/api/sittings/${at.sitting.id}/end`, { drop: false, title: 'Today' });
    expect((await restore(0)).body.code).toBe('ended-history');
    expect((await teacher.send('GET', path())).status).toBe(200);
    wren.live.close();
  });
});
