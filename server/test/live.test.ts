import type { LogRef, Page } from '@doodla/core';
import { packPoints } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { LiveClient, strokeBy } from './helpers/live.js';
import { pdfWith } from './helpers/pdfs.js';
import type { TestServer } from './helpers/server.js';
import { Client, signedIn, startServer } from './helpers/server.js';

interface Joined {
  sitting: string;
  lesson: string;
  token: string;
  student: { id: string; name: string; colour: string };
}

let server: TestServer;
let teacher: Client;
let lesson: LogRef;
let sitting: LogRef;
let code: string;
let pages: Page[];
let live: LiveClient;
let teacherId: string;

beforeAll(async () => {
  server = await startServer();
  teacher = await signedIn(server);
});
afterAll(() => server.remove());

beforeEach(async () => {
  const { lesson: made } = await teacher.upload('lesson.pdf', await pdfWith([300, 200], [200, 300]));
  lesson = { kind: 'lesson', id: made!.id };
  const started = await teacher.send<{ id: string; code: string }>(
    'POST',
    `/api/lessons/${made!.id}/sittings`,
    { title: 'Today' },
  );
  sitting = { kind: 'sitting', id: started.body.id };
  code = started.body.code;
  live = await LiveClient.connect(server.url, { cookie: teacher.cookie });
  const reply = await live.open(lesson);
  pages = reply.pages!;
  teacherId = reply.actor.id;
  await live.open(sitting);
  await live.ask('pens', { sitting: sitting.id, up: true });
  return () => live.close();
});

const join = (name: string, by = code, token?: string) =>
  new Client(server.url).send<Joined & { message: string; ask?: string }>('POST', '/api/join', {
    code: by,
    name,
    token,
  });

async function student(name: string): Promise<{ live: LiveClient; joined: Joined }> {
  const { body: joined } = await join(name);
  const client = await LiveClient.connect(server.url, { token: joined.token });
  await client.open(sitting);
  await client.enter(sitting);
  return { live: client, joined };
}

describe('joining', () => {
  it('takes a code in any writing, a name, and gives each a colour of their own', async () => {
    expect(code).toMatch(/^[CDFGHJKMNPQRTVWXY34679]{6}$/);
    const wren = await join('Wren', ` ${code.slice(0, 3).toLowerCase()}-${code.slice(3)} `);
    const tove = await join('Tove');
    expect(wren.status).toBe(201);
    expect(wren.body.student.colour).not.toBe(tove.body.student.colour);
  });

  it.each([
    ['a wrong code', 'Wren', () => 'CCCCCC', 404, 'no class with this code'],
    ['no name', '  ', () => code, 400, 'your name'],
  ])('refuses %s with a sentence', async (_, name, by, status, hint) => {
    await join('First');
    const refused = await join(name, by());
    expect(refused.status).toBe(status);
    expect(refused.body.message).toContain(hint);
  });

  it('gives a device the place that it had, whoever is shut out', async () => {
    const { live: wren, joined } = await student('Wren');
    await teacher.send('POST', `/api/sittings/${sitting.id}/door`, { locked: true });
    expect((await join('wren', code, joined.token)).body.student).toEqual(joined.student);
    expect((await join('Wren', code, `${joined.token}x`)).body.message).toContain('Nobody else is let in');
    expect((await join('Tove', code, joined.token)).body.message).toContain('Nobody else is let in');
    wren.close();
  });

  it('gives the place of somebody who is away to another device of that name', async () => {
    const { live: wren, joined } = await student('Wren');
    expect((await join('Wren')).body.student).toBeUndefined();
    await live.enter(sitting);
    wren.close();
    await expect.poll(() => live.classState?.people.map(({ here }) => here)).toEqual([false]);
    expect((await join('WREN')).body.student).toEqual(joined.student);
  });

  it('keeps a place for somebody who has only just been given it', async () => {
    const first = await join('Wren');
    expect(first.body.student.name).toBe('Wren');
    expect((await join('Wren')).body.ask).toBeDefined();
  });

  it('lets somebody in who has the name of one who is here by the teacher’s nod', async () => {
    const { joined } = await student('Wren');
    await live.enter(sitting);
    const { ask } = (await join('Wren')).body;
    const look = () => new Client(server.url).send<Partial<Joined>>('GET', `/api/join/asks/${ask!}`);
    expect((await look()).body).toEqual({ ask, why: 'same-name' });
    await expect.poll(() => live.classState?.asks.map(({ name }) => name)).toEqual(['Wren']);
    const { id } = live.classState!.asks[0]!;
    expect(id).not.toBe(ask);
    expect((await new Client(server.url).send('GET', `/api/join/asks/${id}`)).status).toBe(404);
    const path = `/api/sittings/${sitting.id}/asks/${id}`;
    expect((await new Client(server.url).send('POST', path, { grant: true })).status).toBe(401);
    expect((await teacher.send('POST', path, { grant: true })).status).toBe(204);
    expect((await look()).body.student).toEqual(joined.student);
    await expect.poll(() => live.classState?.asks).toEqual([]);
    expect((await look()).status).toBe(404);
  });

  it('does not where the teacher says no', async () => {
    await student('Wren');
    await live.enter(sitting);
    const { ask } = (await join('Wren')).body;
    await expect.poll(() => live.classState?.asks).toHaveLength(1);
    const { id } = live.classState!.asks[0]!;
    await teacher.send('POST', `/api/sittings/${sitting.id}/asks/${id}`, { grant: false });
    const { status, body } = await new Client(server.url).send<{ message: string }>(
      'GET',
      `/api/join/asks/${ask!}`,
    );
    expect(status).toBe(404);
    expect(body.message).toContain('add a letter or a number');
  });

  it('gives a token that is good for this sitting only', async () => {
    const { live: wren, joined } = await student('Wren');
    const { lesson: another } = await teacher.upload('other.pdf', await pdfWith([50, 50]));
    const other = await teacher.send<{ id: string }>('POST', `/api/lessons/${another!.id}/sittings`, {
      title: 'Other',
    });
    expect((await wren.open({ kind: 'sitting', id: other.body.id })).error?.code).toBe('not-found');
    expect((await wren.open(lesson)).pages).toHaveLength(2);
    const bearer = { authorization: `Bearer ${joined.token}` };
    expect((await new Client(server.url).send('GET', '/api/lessons', undefined, bearer)).status).toBe(401);
    const file = `/api/materials/${(pages[0]!.surface as { material: string }).material}/file`;
    expect((await new Client(server.url).send('GET', file, undefined, bearer)).status).toBe(200);
    expect((await new Client(server.url).send('GET', file)).status).toBe(401);
    await expect(LiveClient.connect(server.url, { token: `${joined.token}x` })).rejects.toThrow('sign-in');
  });

  it('ends with the class', async () => {
    await teacher.send('POST', `/api/sittings/${sitting.id}/end`, { drop: false });
    expect((await join('Late')).status).toBe(404);
    expect(
      (await live.submit(sitting, [{ do: 'add', mark: strokeBy(teacherId, pages[0]!.id) }])).error?.code,
    ).toBe('ended');
  });
});

describe('the class', () => {
  it('tells everybody of page, pens and who is here', async () => {
    const { live: wren, joined } = await student('Wren');
    await live.enter(sitting);
    await live.ask('turn', { sitting: sitting.id, page: pages[1]!.id });
    await live.ask('pens', { sitting: sitting.id, up: false });
    await expect.poll(() => wren.classState).toMatchObject({ page: pages[1]!.id, pensUp: false });
    await expect
      .poll(() => live.classState?.people)
      .toEqual([{ ...joined.student, here: true, away: false, pen: null }]);
    wren.close();
    await expect.poll(() => live.classState?.people[0]?.here).toBe(false);
  });

  it('is led by the teacher alone, and only to pages that are there', async () => {
    const { live: wren } = await student('Wren');
    expect((await wren.ask('turn', { sitting: sitting.id, page: pages[1]!.id })).error?.code).toBe(
      'not-allowed',
    );
    expect((await wren.ask('pens', { sitting: sitting.id, up: false })).error?.code).toBe('not-allowed');
    expect((await live.ask('turn', { sitting: sitting.id, page: 'nowhere' })).error?.code).toBe('page-gone');
  });
});

describe('operations', () => {
  it('reach everybody numbered without gaps, in one order', async () => {
    const [wren, tove] = [await student('Wren'), await student('Tove')];
    const submits = Array.from({ length: 20 }, (_, i) => {
      const { live: from, joined } = i % 2 ? wren : tove;
      return from.submit(sitting, [{ do: 'add', mark: strokeBy(joined.student.id, pages[0]!.id) }]);
    });
    await Promise.all(submits);
    await expect.poll(() => live.operations.length).toBe(20);
    expect(live.operations.map(({ logged }) => logged.seq)).toEqual(
      Array.from({ length: 20 }, (_, i) => i + 2),
    );
    await expect.poll(() => wren.live.operations).toEqual(live.operations);
  });

  it('count once when sent twice', async () => {
    const id = randomUUID();
    const change = { do: 'add', mark: strokeBy(teacherId, pages[0]!.id) };
    await live.submit(sitting, [change], id);
    expect((await live.submit(sitting, [change], id)).error).toBeUndefined();
    expect(await live.snapshot(sitting)).toMatchObject({ seq: 2, marks: [{ id: change.mark.id }] });
  });

  it('come again to whoever was away', async () => {
    for (let i = 0; i < 3; i++)
      await live.submit(sitting, [{ do: 'add', mark: strokeBy(teacherId, pages[0]!.id) }]);
    const { operations, pages: all } = await live.open(sitting, 2);
    expect(all).toBeUndefined();
    expect(operations.map(({ seq }) => seq)).toEqual([3, 4]);
    expect(await live.open(sitting, 99)).toMatchObject({ seq: 4, pages: expect.any(Array) as unknown });
  });

  it('are taken back by number, not by what the client says', async () => {
    const { live: wren } = await student('Wren');
    const id = randomUUID();
    const mark = strokeBy(teacherId, pages[0]!.id);
    await live.submit(sitting, [{ do: 'add', mark }], id);
    expect((await wren.submit(sitting, [], randomUUID(), id)).error?.code).toBe('not-yours');
    const undo = randomUUID();
    await live.submit(sitting, [{ do: 'remove', mark: 'something-else' }], undo, id);
    expect((await live.snapshot(sitting)).marks).toEqual([]);
    await live.submit(sitting, [], randomUUID(), undo);
    expect((await live.snapshot(sitting)).marks).toEqual([mark]);
    expect((await live.open(sitting)).undoable).toHaveLength(1);
  });

  it('are refused with a sentence, and the server goes on', async () => {
    const { live: wren, joined } = await student('Wren');
    const own = (set: object) => ({
      do: 'add',
      mark: { ...strokeBy(joined.student.id, pages[0]!.id), ...set },
    });
    const foreign = strokeBy(teacherId, pages[0]!.id);
    await live.submit(sitting, [{ do: 'add', mark: foreign }]);
    const refusals: [unknown[], string][] = [
      [[{ do: 'remove', mark: foreign.id }], 'not-yours'],
      [[{ do: 'patch', mark: foreign.id, set: { order: 'a1' } }], 'not-yours'],
      [[own({ author: teacherId })], 'not-yours'],
      [[own({ page: 'nowhere' })], 'no-such-page'],
      [[own({ points: [NaN, 1, 0.5, 0] })], 'bad-mark'],
      [[own({ points: new Array(80_004).fill(0.1) })], 'bad-mark'],
      [[own({ text: 'x'.repeat(1_200_000) })], 'too-large'],
      [['nonsense'], 'bad-mark'],
    ];
    for (const [changes, code] of refusals) {
      const { error } = await wren.submit(sitting, changes);
      expect(error).toMatchObject({ code, message: expect.stringMatching(/^[A-Z].*\.$/) as string });
    }
    expect((await wren.submit(lesson, [own({})])).error?.code).toBe('not-open');
    await wren.open(lesson);
    expect((await wren.submit(lesson, [own({})])).error?.code).toBe('not-allowed');
    await live.ask('pens', { sitting: sitting.id, up: false });
    expect((await wren.submit(sitting, [own({})])).error?.code).toBe('pens-down');
    for (const garbage of [
      null,
      'x',
      { log: 1 },
      { log: sitting, operation: { id: '../../x', changes: [] } },
    ]) {
      expect((await wren.ask('submit', garbage as object)).error?.code).toBe('bad-mark');
    }
    expect((await live.snapshot(sitting)).marks).toEqual([foreign]);
  });

  it('survive a message that is far too large: only its sender is cut off', async () => {
    const { live: wren } = await student('Wren');
    const cut = new Promise((resolve) => wren.socket.on('disconnect', resolve));
    wren.socket.emit('submit', 'x'.repeat(5_000_000));
    await cut;
    expect(
      (await live.submit(sitting, [{ do: 'add', mark: strokeBy(teacherId, pages[0]!.id) }])).error,
    ).toBeUndefined();
  });

  it('on a copy of their own are seen by that student and the teacher alone', async () => {
    const [wren, tove] = [await student('Wren'), await student('Tove')];
    const { id } = wren.joined.student;
    const mark = strokeBy(id, pages[0]!.id, { space: `student:${id}` });
    await wren.live.submit(sitting, [{ do: 'add', mark }]);
    await expect.poll(() => live.operations.at(-1)?.logged.operation.changes).toHaveLength(1);
    await expect
      .poll(() => tove.live.operations.at(-1)?.logged)
      .toMatchObject({ seq: 2, operation: { changes: [] } });
    expect((await tove.live.snapshot(sitting)).marks).toEqual([]);
    expect((await tove.live.open(sitting, 1)).operations[0]!.operation.changes).toEqual([]);
  });

  it('are all there after a restart', async () => {
    for (let i = 0; i < 230; i++)
      await live.submit(sitting, [{ do: 'add', mark: strokeBy(teacherId, pages[0]!.id) }]);
    await server.stop();
    server = await startServer({}, server.data);
    live = await LiveClient.connect(server.url, { cookie: teacher.cookie });
    teacher = Object.assign(new Client(server.url), { cookie: teacher.cookie });
    const all = await live.snapshot(sitting);
    expect(all.seq).toBe(231);
    expect(all.marks).toHaveLength(230);
  });
});

describe('wet ink', () => {
  const head = {
    space: 'class',
    style: { nature: 'pen', colour: '#000000', width: 4, opacity: 1 },
    pressure: false,
  };
  const drawing = (set: object = {}) => ({
    log: sitting,
    page: pages[0]!.id,
    stroke: 'wet-1',
    head,
    from: 0,
    points: packPoints([1, 1, 0.5, 0]),
    ...set,
  });
  const heard = (client: LiveClient) => client.drawn.flatMap(({ parts }) => parts);

  it('is gathered, passed on with its author and never stored', async () => {
    const { live: wren, joined } = await student('Wren');
    wren.socket.emit('draw', drawing());
    wren.socket.emit('draw', drawing({ head: undefined, from: 1 }));
    await expect.poll(() => heard(live)).toHaveLength(2);
    expect(heard(live)[0]).toMatchObject({ author: joined.student.id, stroke: 'wet-1', head });
    expect(heard(live)[1]).toMatchObject({ from: 1 });
    expect(live.drawn).toHaveLength(1);
    expect((await live.open(sitting)).seq).toBe(1);
  });

  it('is not passed on while pens are down, nor when it is malformed', async () => {
    const { live: wren } = await student('Wren');
    wren.socket.emit('draw', drawing({ points: 'AA==' }));
    wren.socket.emit('draw', drawing({ points: [1, 2] }));
    wren.socket.emit('draw', drawing({ head: { style: { nature: 'pen' } } }));
    wren.socket.emit('draw', drawing({ stroke: 'without-head', head: undefined }));
    await live.ask('pens', { sitting: sitting.id, up: false });
    wren.socket.emit('draw', drawing());
    // Asked for on the same line, so that it is known to have been there.
    await wren.open(sitting);
    await live.ask('pens', { sitting: sitting.id, up: true });
    wren.socket.emit('draw', drawing({ stroke: 'last' }));
    await expect.poll(() => heard(live)).toMatchObject([{ stroke: 'last' }]);
  });

  it('on a copy of their own is seen by that student and the teacher alone', async () => {
    const [wren, tove] = [await student('Wren'), await student('Tove')];
    const space = `student:${wren.joined.student.id}`;
    wren.live.socket.emit('draw', drawing({ head: { ...head, space } }));
    await expect.poll(() => heard(live)).toHaveLength(1);
    await tove.live.open(sitting);
    expect(heard(tove.live)).toEqual([]);
  });
});
