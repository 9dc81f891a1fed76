import 'reflect-metadata';
import type { Folder, LessonSummary } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { aStroke } from '../../core/test/helpers/marks.js';
import { aClass } from './helpers/aClass.js';
import type { TestServer } from './helpers/server.js';
import { Client, signedIn, startServer } from './helpers/server.js';

let server: TestServer;
let teacher: Client;

beforeAll(async () => {
  server = await startServer();
  teacher = await signedIn(server);
});
afterAll(() => server.remove());

const folder = async (title: string, parent: string | null = null) =>
  (await teacher.send<Folder & { code: string }>('POST', '/api/folders', { title, parent })).body;
const folders = async () => (await teacher.send<Folder[]>('GET', '/api/folders')).body;
const blank = async () =>
  (await teacher.send<LessonSummary>('POST', '/api/lessons/blank', { sheet: null })).body;
const lessons = async () => (await teacher.send<LessonSummary[]>('GET', '/api/lessons')).body;
const lesson = async (id: string) => (await lessons()).find((one) => one.id === id)!;
const say = (id: string, what: object) => teacher.send<{ code: string }>('PATCH', `/api/lessons/${id}`, what);

describe('what is said of a lesson', () => {
  it('is kept, each thing by itself', async () => {
    const { id } = await blank();
    const { id: unit } = await folder('Bridges');
    expect(await lesson(id)).toMatchObject({ folder: null, favourite: false, tags: [], archived: false });
    for (const what of [
      { folder: unit },
      { favourite: true },
      { tags: [' Year 8 ', 'truss', 'truss'] },
      { archived: true },
      { title: 'Arches' },
      {},
    ])
      expect((await say(id, what)).status, JSON.stringify(what)).toBe(204);
    expect(await lesson(id)).toMatchObject({
      title: 'Arches',
      folder: unit,
      favourite: true,
      tags: ['Year 8', 'truss'],
      archived: true,
    });
    await say(id, { folder: null, archived: false, favourite: false });
    expect(await lesson(id)).toMatchObject({ folder: null, favourite: false, archived: false });
  });

  it('is refused where it cannot be', async () => {
    const { id } = await blank();
    for (const what of [
      { title: '' },
      { title: 'x'.repeat(201) },
      { tags: Array.from({ length: 21 }, (_, i) => `${i}`) },
      { tags: ['x'.repeat(41)] },
      { tags: 'truss' },
      { folder: 'here' },
      { favourite: 'yes' },
    ])
      expect((await say(id, what)).status, JSON.stringify(what)).toBe(400);
    expect((await say(id, { folder: randomUUID() })).status).toBe(404);
    expect(
      (await new Client(server.url).send('PATCH', `/api/lessons/${id}`, { favourite: true })).status,
    ).toBe(401);
  });
});

describe('folders', () => {
  it('lie in each other, are renamed and moved, and leave what is in them where they were', async () => {
    const outer = await folder('Year 8');
    const inner = await folder('Loads', outer.id);
    const innermost = await folder('Tables', inner.id);
    const { id } = await blank();
    await say(id, { folder: inner.id });
    const put = (of: string, what: object) =>
      teacher.send<{ code: string }>('PUT', `/api/folders/${of}`, what);
    expect((await put(inner.id, { title: 'Loads and spans', parent: outer.id })).status).toBe(204);
    expect((await put(outer.id, { title: 'Year 8', parent: innermost.id })).body.code).toBe(
      'folder-in-itself',
    );
    expect((await put(outer.id, { title: 'Year 8', parent: outer.id })).body.code).toBe('folder-in-itself');
    expect((await put(randomUUID(), { title: 'No', parent: null })).status).toBe(404);
    expect((await teacher.send('POST', '/api/folders', { title: 'No', parent: randomUUID() })).status).toBe(
      404,
    );
    expect((await teacher.send('DELETE', `/api/folders/${inner.id}`)).status).toBe(204);
    expect((await lesson(id)).folder).toBe(outer.id);
    expect((await folders()).find((one) => one.id === innermost.id)?.parent).toBe(outer.id);
  });
});

describe('a copy of a lesson', () => {
  it('has all pages and prepared marks, and goes its own way', async () => {
    const at = await aClass(server, teacher);
    const mark = aStroke({ id: randomUUID(), page: at.pages[1]!.id, author: at.me });
    await at.live.submit(at.lesson, [{ do: 'add', mark }]);
    const { id: unit } = await folder('Copies');
    await say(at.lesson.id, { folder: unit, tags: ['load'] });
    const { body: copy, status } = await teacher.send<LessonSummary>(
      'POST',
      `/api/lessons/${at.lesson.id}/copies`,
      {
        title: 'Load, again',
      },
    );
    expect(status).toBe(201);
    expect(copy).toMatchObject({ title: 'Load, again', folder: unit, tags: ['load'], favourite: false });
    await at.live.submit(at.lesson, [{ do: 'remove', mark: mark.id }]);
    const ref = { kind: 'lesson', id: copy.id } as const;
    await at.live.open(ref);
    const { pages, marks } = await at.live.snapshot(ref);
    expect(pages.map(({ width, surface }) => [width, surface])).toEqual(
      at.pages.map(({ width, surface }) => [width, surface]),
    );
    expect(marks).toMatchObject([{ kind: 'stroke', points: mark.points }]);
    expect((await teacher.send('POST', `/api/lessons/${randomUUID()}/copies`, { title: 'No' })).status).toBe(
      404,
    );
    at.live.close();
  });
});

describe('the trash', () => {
  it('has what was deleted, until it is brought back', async () => {
    const { id } = await blank();
    await teacher.send('DELETE', `/api/lessons/${id}`);
    const trash = async () => (await teacher.send<LessonSummary[]>('GET', '/api/lessons/trash')).body;
    expect((await trash())[0]).toMatchObject({ id, deletedAt: expect.any(Number) as number });
    expect(await lesson(id)).toBeUndefined();
    await teacher.send('POST', `/api/lessons/${id}/restore`);
    expect((await trash()).some((one) => one.id === id)).toBe(false);
    expect(await lesson(id)).toMatchObject({ deletedAt: null });
  });
});
