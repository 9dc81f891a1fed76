import type { LogRef, Mark, Page, Scene } from '@doodla/core';
import { packPoints } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { PurgeService } from '../src/lessons/purge.service.js';
import { Database } from '../src/storage/database.js';
import { aClass } from './helpers/aClass.js';
import { LiveClient, strokeBy } from './helpers/live.js';
import type { TestServer } from './helpers/server.js';
import { Client, signedIn, startServer } from './helpers/server.js';

let server: TestServer;
let teacher: Client;
let lesson: LogRef;
let sitting: LogRef;
let code: string;
let pages: Page[];
let live: LiveClient;
let me: string;

beforeAll(async () => {
  server = await startServer();
  teacher = await signedIn(server);
});
afterAll(() => server.remove());

beforeEach(async () => {
  ({ lesson, sitting, code, pages, live, me } = await aClass(server, teacher, 'Form 8, Tuesday'));
  return () => live.close();
});

const path = (rest = '') => `/api/sittings/${sitting.id}${rest}`;
const write = (page: Page, set: object = {}) =>
  live.submit(sitting, [{ do: 'add', mark: strokeBy(me, page.id, set) }]);
const end = (how: object) => teacher.send('POST', path('/end'), how);
const detail = async () =>
  (
    await teacher.send<{
      sittings: { id: string; title: string; droppedAt: number | null; endedAt: number | null }[];
    }>('GET', `/api/lessons/${lesson.id}`)
  ).body.sittings[0]!;
const prepared = async (): Promise<Mark[]> => (await live.snapshot(lesson)).marks;

describe('a class that ends', () => {
  it('is kept under a name, to be looked at and gone on with', async () => {
    await write(pages[0]!);
    expect((await end({ drop: false, title: ' Trusses, group B ' })).status).toBe(204);
    expect(await detail()).toMatchObject({ title: 'Trusses, group B', droppedAt: null });
    expect((await write(pages[0]!)).error?.code).toBe('ended');
    expect((await teacher.send('POST', path('/reopen'))).status).toBe(204);
    expect((await write(pages[0]!)).error).toBeUndefined();
    expect((await live.snapshot(sitting)).marks).toHaveLength(2);
    const join = await new Client(server.url).send('POST', '/api/join', { code, name: 'Wren' });
    expect(join.status).toBe(201);
  });

  it('has not ended just goes on, with the code that students know', async () => {
    expect((await teacher.send('POST', path('/reopen'))).status).toBe(204);
    const join = await new Client(server.url).send('POST', '/api/join', { code, name: 'Wren' });
    expect(join.status).toBe(201);
  });

  it('that is dropped can be brought back for a day, and is gone after it', async () => {
    await write(pages[0]!);
    await end({ drop: true });
    expect((await detail()).droppedAt).not.toBeNull();
    expect((await teacher.send('POST', path('/restore'))).status).toBe(204);
    expect((await detail()).droppedAt).toBeNull();
    expect((await teacher.send('DELETE', path())).status).toBe(204);
    const purge = server.app.get(PurgeService);
    await purge.purge(Date.now() + 23 * 3600_000);
    expect((await detail()).id).toBe(sitting.id);
    await purge.purge(Date.now() + 25 * 3600_000);
    expect(await detail()).toBeUndefined();
    const rows = await server.app
      .get(Database)
      .all<{ n: number }>('SELECT count(*) AS n FROM log WHERE id = ?', [sitting.id]);
    expect(rows[0]!.n).toBe(0);
    expect(await prepared()).toEqual([]);
  });

  it('needs a word on whether its marks are kept', async () => {
    expect((await end({})).status).toBe(400);
    expect((await end({ drop: false, title: '' })).body.message).toContain('title');
  });

  it('is listed as open until then, for its teacher alone', async () => {
    const list = async (client: Client) => (await client.send<{ id: string }[]>('GET', '/api/sittings')).body;
    expect((await list(teacher)).map(({ id }) => id)).toContain(sitting.id);
    await end({ drop: false });
    expect((await list(teacher)).map(({ id }) => id)).not.toContain(sitting.id);
    expect((await new Client(server.url).send('GET', '/api/sittings')).status).toBe(401);
  });
});

describe('a second class of a lesson', () => {
  const start = () =>
    teacher.send<{ message: string }>('POST', `/api/lessons/${lesson.id}/sittings`, { title: 'Next' });

  it('is refused while one is going on, however it would come about', async () => {
    expect(await start()).toMatchObject({ status: 409, body: { code: 'class-open' } });
    await end({ drop: false });
    expect((await start()).status).toBe(201);
    expect(await teacher.send('POST', path('/reopen'))).toMatchObject({ status: 409 });
  });

  it('is started once where two devices start it at the same time', async () => {
    await end({ drop: false });
    const answers = await Promise.all([start(), start(), start()]);
    expect(answers.map(({ status }) => status).sort()).toEqual([201, 409, 409]);
  });
});

describe('marks of a class', () => {
  it('start with nothing but the prepared ones in every new class', async () => {
    await live.submit(lesson, [{ do: 'add', mark: strokeBy(me, pages[0]!.id) }]);
    await write(pages[0]!);
    await end({ drop: false });
    const { body } = await teacher.send<{ id: string }>('POST', `/api/lessons/${lesson.id}/sittings`, {
      title: 'Next',
    });
    expect((await live.snapshot({ kind: 'sitting', id: body.id })).marks).toEqual([]);
    expect(await prepared()).toHaveLength(1);
  });

  it('become prepared ones, all or chosen, in their order, and stay joined', async () => {
    const [first, second] = [randomUUID(), randomUUID()];
    await write(pages[0]!, { id: first, order: 'a1' });
    await write(pages[1]!, { id: second, order: 'a2' });
    const chosen = await teacher.send<{ marks: string[] }>('POST', path('/prepared'), { marks: [second] });
    expect(chosen.body.marks).toHaveLength(1);
    expect(await prepared()).toMatchObject([{ page: pages[1]!.id, author: me, id: chosen.body.marks[0] }]);
    await teacher.send('POST', path('/prepared'), { page: pages[0]!.id });
    const all = await prepared();
    expect(all).toHaveLength(2);
    expect((await live.snapshot(sitting)).marks).toHaveLength(2);
  });

  it('are nobody else’s to keep', async () => {
    const stranger = new Client(server.url);
    expect((await stranger.send('POST', path('/prepared'), {})).status).toBe(401);
    expect((await stranger.send('DELETE', path())).status).toBe(401);
  });
});

async function student(name: string): Promise<{ client: LiveClient; id: string }> {
  const { body } = await new Client(server.url).send<{ token: string; student: { id: string } }>(
    'POST',
    '/api/join',
    { code, name },
  );
  const client = await LiveClient.connect(server.url, { token: body.token });
  await client.open(sitting);
  await client.enter(sitting);
  return { client, id: body.student.id };
}

const cover = () =>
  ({ kind: 'cover', page: pages[0]!.id, shared: true, x: 0, y: 0, width: 300, height: 200 }) as const;
const setScene = (set: object, moving = false, by = live) =>
  by.ask('scene', { sitting: sitting.id, set, moving });

describe('what is set up for the class', () => {
  it('is told to all, kept over a restart, and cleared when the class ends', async () => {
    const { client: wren } = await student('Wren');
    await setScene({ focus: cover(), uncovered: ['m1'] });
    await expect.poll(() => wren.classState?.scene.focus).toEqual(cover());
    await server.stop();
    server = await startServer({}, server.data);
    live = await LiveClient.connect(server.url, { cookie: teacher.cookie });
    const state = await live.enter(sitting);
    expect(state.scene).toMatchObject({ focus: cover(), uncovered: ['m1'], timer: null });
    teacher = Object.assign(new Client(server.url), { cookie: teacher.cookie });
    await end({ drop: false });
    expect((await live.enter(sitting)).scene.focus).toBeNull();
  });

  it('reaches others at once while a hand moves it', async () => {
    const { client: wren } = await student('Wren');
    const seen: { set: Partial<Scene> }[] = [];
    wren.socket.on('scene', (message: { set: Partial<Scene> }) => seen.push(message));
    await setScene({ focus: { ...cover(), x: 5 } }, true);
    await expect.poll(() => seen.at(-1)?.set.focus?.x).toBe(5);
    // Whoever comes now sees it where it is.
    const { client: late } = await student('Late');
    expect((await late.enter(sitting)).scene.focus?.x).toBe(5);
  });

  it('is the teacher’s alone, and nonsense is refused', async () => {
    const { client: wren } = await student('Wren');
    expect((await setScene({ focus: null }, false, wren)).error?.code).toBe('not-allowed');
    expect((await setScene({ focus: { kind: 'cover' } })).error).toBeDefined();
    expect((await setScene({ anything: 1 })).error).toBeDefined();
  });
});

describe('pointing', () => {
  it('reaches the class from the teacher, and from students who are let', async () => {
    const wren = await student('Wren');
    const tove = await student('Tove');
    const seen: { author: string; x: number }[] = [];
    tove.client.socket.on('pointed', (message: { author: string; x: number }) => seen.push(message));
    const dot = { sitting: sitting.id, page: pages[0]!.id, y: 4, gone: true };
    wren.client.socket.emit('point', { ...dot, x: 1 });
    live.socket.emit('point', { ...dot, x: 2 });
    await expect.poll(() => seen.map(({ x }) => x)).toEqual([2]);
    await setScene({ pointers: [wren.id] });
    wren.client.socket.emit('point', { ...dot, x: 3 });
    await expect
      .poll(() => seen.map(({ author, x }) => [author, x]))
      .toEqual([
        [me, 2],
        [wren.id, 3],
      ]);
  });

  it('by ink that fades is let while pens are down, ink that stays is not', async () => {
    const wren = await student('Wren');
    await setScene({ pointers: [wren.id] });
    const ink = {
      log: sitting,
      page: pages[0]!.id,
      from: 0,
      points: packPoints([1, 1, 0.5, 0]),
    };
    const head = {
      space: 'class',
      style: { nature: 'pen', colour: '#000000', width: 4, opacity: 1 },
      pressure: false,
    };
    wren.client.socket.emit('draw', { ...ink, head, stroke: 'stays' });
    wren.client.socket.emit('draw', { ...ink, head: { ...head, fade: 3000 }, stroke: 'fades' });
    await expect
      .poll(() => live.drawn.flatMap(({ parts }) => parts.map(({ stroke }) => stroke)))
      .toEqual(['fades']);
  });
});
