import 'reflect-metadata';
import type { HistoryReply, LoggedOperation, Mark, ReplayHead, ReplayStop, RulesMessage } from '@doodla/core';
import { unpackLogged } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { aStroke } from '../../core/test/helpers/marks.js';
import type { TestClass } from './helpers/aClass.js';
import { aClass } from './helpers/aClass.js';
import type { Pupil } from './helpers/joining.js';
import { joiner } from './helpers/joining.js';
import type { TestServer } from './helpers/server.js';
import { Client, signedIn, startServer } from './helpers/server.js';

let server: TestServer;
let teacher: Client;
let at: TestClass;
let page: string;
let wren: Pupil & { token: string };
let tove: Pupil & { token: string };

beforeAll(async () => {
  server = await startServer();
  teacher = await signedIn(server);
});
afterAll(() => server.remove());
beforeEach(async () => {
  at = await aClass(server, teacher);
  page = at.pages[0]!.id;
  const join = joiner(server, at);
  [wren, tove] = [await join('Wren'), await join('Tove')];
  await at.live.ask('pens', { sitting: at.sitting.id, up: true });
});
afterEach(() => [at, wren, tove].forEach(({ live }) => live.close()));

const path = (ref = at.sitting) => `/api/logs/${ref.kind}/${ref.id}/replay`;
const ask = (who: Client | string, ref = at.sitting) =>
  typeof who === 'string'
    ? new Client(server.url).send<unknown>('GET', path(ref), undefined, { Authorization: `Bearer ${who}` })
    : who.send<unknown>('GET', path(ref));

/** What is told of a log, line by line. */
async function told(who: Client | string, ref = at.sitting) {
  const { status, body } = await ask(who, ref);
  expect(status).toBe(200);
  const [head, ...rest] = (body as string)
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as object);
  expect(rest.pop()).toEqual({ end: true });
  const operations: LoggedOperation[] = (rest as HistoryReply[]).flatMap(({ steps }) =>
    steps.map(unpackLogged),
  );
  return { head: head as ReplayHead, operations };
}
const added = (operations: readonly LoggedOperation[]) =>
  operations.flatMap(({ operation }) =>
    operation.changes.flatMap((change) => (change.do === 'add' ? [change.mark.id] : [])),
  );
const rule = (set: RulesMessage['set']) => at.live.ask('rules', { sitting: at.sitting.id, set });
async function add(who: Pick<Pupil, 'live'>, author: string, set: Partial<Mark> = {}): Promise<string> {
  const mark = { ...aStroke({ id: randomUUID(), page, author }), ...set } as Mark;
  const reply = await who.live.submit(at.sitting, [{ do: 'add', mark }]);
  expect(reply.error).toBeUndefined();
  return mark.id;
}

describe('what was done in a class', () => {
  it('is told to its teacher, with when the class turned to which page', async () => {
    const mark = await add(at, at.me);
    await at.live.ask('turn', { sitting: at.sitting.id, page: at.pages[1]!.id });
    const { head, operations } = await told(teacher);
    expect(head.turns.map((turn) => turn.page)).toEqual([page, at.pages[1]!.id]);
    expect(head.turns[0]!.at).toBeLessThanOrEqual(head.turns[1]!.at);
    expect(head.count).toBe(operations.length);
    expect(operations.map(({ seq }) => seq)).toEqual(operations.map((_, i) => i + 1));
    expect(added(operations)).toEqual([mark]);
  });

  it('is told whole where it is more than fits into one line', async () => {
    for (let i = 0; i < 210; i++) await add(at, at.me);
    const { head, operations } = await told(teacher);
    expect(head.count).toBe(211);
    expect(new Set(added(operations)).size).toBe(210);
  });

  it('is told of a lesson too, which has no turns', async () => {
    const { head } = await told(teacher, at.lesson);
    expect(head.turns).toEqual([]);
    expect(head.count).toBeGreaterThan(0);
  });

  it('is for its teacher, and for students whom they let; nobody else', async () => {
    expect((await ask(new Client(server.url))).status).toBe(401);
    const stranger = joiner(server, await aClass(server, teacher));
    const other = await stranger('Bram');
    expect((await ask(other.token)).status).toBe(404);
    other.live.close();
    const refused = await ask(wren.token);
    expect(refused).toMatchObject({ status: 403, body: { code: 'no-replay' } });
    expect((await rule({ replay: true })).error).toBeUndefined();
    expect((await ask(wren.token)).status).toBe(200);
    expect((await ask(wren.token, at.lesson)).status).toBe(404);
    expect((await teacher.send('GET', '/api/logs/shelf/1/replay')).status).toBe(400);
  });
});

describe('what a student is told', () => {
  beforeEach(() => rule({ replay: true }));

  it('is what they may see, also of marks that are gone since', async () => {
    await at.live.ask('ways', { sitting: at.sitting.id, ways: { [page]: 'own' } });
    const own = await add(wren, wren.id, { space: `student:${wren.id}` });
    const hers = await add(tove, tove.id, { space: `student:${tove.id}` });
    const gone = await add(at, at.me);
    await at.live.submit(at.sitting, [{ do: 'patch', mark: gone, set: { alt: 'An arch' } }]);
    await at.live.submit(at.sitting, [{ do: 'remove', mark: gone }]);
    const { operations } = await told(wren.token);
    expect(added(operations)).toEqual([own, gone]);
    expect(added((await told(tove.token)).operations)).toEqual([hers, gone]);
    expect(operations.slice(-2).flatMap(({ operation }) => operation.changes)).toMatchObject([
      { do: 'patch', mark: gone },
      { do: 'remove', mark: gone },
    ]);
  });

  it('has nothing of what the teacher took away, nor of hidden students', async () => {
    const rude = await add(tove, tove.id);
    const fine = await add(tove, tove.id);
    await at.live.submit(at.sitting, [{ do: 'remove', mark: rude }]);
    expect(added((await told(wren.token)).operations)).toEqual([fine]);
    expect(added((await told(teacher)).operations)).toEqual([rude, fine]);
    await rule({ hidden: [tove.id] });
    expect(added((await told(wren.token)).operations)).toEqual([]);
  });
});

describe('chapters', () => {
  const chapter = (id: number | string) => `/api/logs/sitting/${at.sitting.id}/chapters/${id}`;

  it('begin with the turns of the class, and are named by its teacher', async () => {
    const [first] = (await told(teacher)).head.turns;
    expect(first).toMatchObject({ page, name: null });
    expect((await teacher.send('PUT', chapter(first!.id), { name: ' Loads ' })).status).toBe(204);
    expect((await told(teacher)).head.turns[0]!.name).toBe('Loads');
    expect((await teacher.send('PUT', chapter(first!.id), { name: '  ' })).status).toBe(204);
    expect((await told(teacher)).head.turns[0]!.name).toBeNull();
  });

  it('of others, and what is no name, are refused', async () => {
    const [first] = (await told(teacher)).head.turns;
    const other = await aClass(server, teacher);
    other.live.close();
    const elsewhere = `/api/logs/sitting/${other.sitting.id}/chapters/${first!.id}`;
    expect((await teacher.send('PUT', elsewhere, { name: 'Loads' })).status).toBe(404);
    const headers = { Authorization: `Bearer ${wren.token}` };
    const asked = await new Client(server.url).send('PUT', chapter(first!.id), { name: 'x' }, headers);
    expect(asked.status).toBe(401);
    for (const name of [7, 'x'.repeat(121)])
      expect((await teacher.send('PUT', chapter(first!.id), { name })).status).toBe(400);
    expect((await teacher.send('PUT', chapter('first'), { name: 'x' })).status).toBe(400);
  });
});

describe('stops', () => {
  const stops = (of = '') => `/api/logs/sitting/${at.sitting.id}/stops${of}`;
  const place = (set: object = {}) => ({ at: 5000, page, text: 'Draw the outline now', seconds: 60, ...set });

  it('are put, changed and taken away by the teacher, and told in order to whoever plays', async () => {
    const late = (await teacher.send<ReplayStop>('POST', stops(), place({ at: 9000, seconds: null }))).body;
    const early = (await teacher.send<ReplayStop>('POST', stops(), place())).body;
    expect((await told(teacher)).head.stops).toEqual([early, late]);
    const changed = place({ at: 6000, text: '' });
    expect((await teacher.send('PUT', stops(`/${early.id}`), changed)).status).toBe(204);
    await rule({ replay: true });
    expect((await told(wren.token)).head.stops[0]).toEqual({ id: early.id, ...changed });
    expect((await teacher.send('DELETE', stops(`/${early.id}`))).status).toBe(204);
    expect((await told(teacher)).head.stops).toEqual([late]);
    expect((await teacher.send('PUT', stops(`/${early.id}`), changed)).status).toBe(404);
  });

  it('are for the teacher of the class alone, and bad ones are refused', async () => {
    const headers = { Authorization: `Bearer ${wren.token}` };
    expect((await new Client(server.url).send('POST', stops(), place(), headers)).status).toBe(401);
    for (const bad of [{ at: -1 }, { at: 'now' }, { page: 7 }, { text: 'x'.repeat(301) }, { seconds: 0 }])
      expect((await teacher.send('POST', stops(), place(bad))).status).toBe(400);
    expect((await told(teacher)).head.stops).toEqual([]);
  });

  it('are as many as can be looked through', async () => {
    for (let i = 0; i < 200; i++) await teacher.send('POST', stops(), place({ at: i }));
    expect((await teacher.send('POST', stops(), place())).body.code).toBe('too-many-stops');
  });
});
