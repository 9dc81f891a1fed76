import 'reflect-metadata';
import type { Mark, PensOfMessage, RulesMessage } from '@doodla/core';
import { packPoints } from '@doodla/core';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { randomUUID } from 'node:crypto';
import { aShape, aStroke, aText } from '../../core/test/helpers/marks.js';
import type { TestClass } from './helpers/aClass.js';
import { aClass } from './helpers/aClass.js';
import { joiner } from './helpers/joining.js';
import type { Pupil } from './helpers/joining.js';
import type { TestServer } from './helpers/server.js';
import { signedIn, startServer } from './helpers/server.js';
import type { Client } from './helpers/server.js';

let server: TestServer;
let teacher: Client;
let at: TestClass;
let wren: Pupil;
let tove: Pupil;

beforeAll(async () => {
  server = await startServer();
  teacher = await signedIn(server);
});
afterAll(() => server.remove());

beforeEach(async () => {
  at = await aClass(server, teacher);
  const join = joiner(server, at);
  [wren, tove] = [await join('Wren'), await join('Tove')];
  await at.live.ask('pens', { sitting: at.sitting.id, up: true });
});
afterEach(() => {
  for (const { live } of [wren, tove, at]) live.close();
});

const rule = (set: RulesMessage['set']) => at.live.ask('rules', { sitting: at.sitting.id, set });
const pensOf = (pens: PensOfMessage['pens']) => at.live.ask('pensOf', { sitting: at.sitting.id, pens });
const page = () => at.pages[0]!.id;
const put = async ({ live, id }: Pupil, kind: Mark = aStroke()) => {
  const mark = { ...kind, id: randomUUID(), page: page(), author: id };
  const { error } = await live.submit(at.sitting, [{ do: 'add', mark }]);
  return { mark, code: error?.code };
};
/** The marks that somebody has of the page, asking anew. */
const seenBy = async ({ live }: Pupil) => (await live.snapshot(at.sitting)).marks.map(({ id }) => id);
/** Numbers of the marks that somebody was told of. */
const toldTo = ({ live }: Pupil) =>
  live.operations.flatMap(({ logged }) =>
    logged.operation.changes.flatMap((change) => (change.do === 'add' ? [change.mark.id] : [])),
  );

/** Draws a bit of a stroke that is not finished. */
const draw = ({ live }: Pick<Pupil, 'live'>, stroke: string) => {
  const style = { nature: 'pen', colour: '#000000', width: 4, opacity: 1 };
  const points = packPoints([1, 1, 0.5, 0, 9, 9, 0.5, 20]);
  const head = { space: 'class', style, pressure: false };
  live.socket.emit('draw', { log: at.sitting, page: page(), stroke, from: 0, points, head });
};
const heardBy = ({ live }: Pick<Pupil, 'live'>) =>
  live.drawn.flatMap(({ parts }) => parts.map(({ stroke }) => stroke));

describe('pens of single students', () => {
  it('are up or down whatever all pens are, until all pens are said anew', async () => {
    await pensOf({ [wren.id]: 'down' });
    expect((await put(wren)).code).toBe('pens-down');
    expect((await put(tove)).code).toBeUndefined();
    await expect
      .poll(() => wren.live.classState?.people.map(({ name, pen }) => [name, pen]))
      .toEqual([
        ['Wren', 'down'],
        ['Tove', null],
      ]);
    await at.live.ask('pens', { sitting: at.sitting.id, up: false });
    expect((await put(tove)).code).toBe('pens-down');
    await pensOf({ [wren.id]: 'up' });
    expect((await put(wren)).code).toBeUndefined();
    await at.live.ask('pens', { sitting: at.sitting.id, up: false });
    expect((await put(wren)).code).toBe('pens-down');
  });

  it('stop wet ink as well', async () => {
    await pensOf({ [wren.id]: 'down' });
    draw(wren, 'stopped');
    draw(tove, 'goes-on');
    await expect.poll(() => heardBy(at)).toContain('goes-on');
    expect(heardBy(at)).not.toContain('stopped');
  });

  it('are the teacher’s to say, of students of the class', async () => {
    const message = { sitting: at.sitting.id, pens: { [tove.id]: 'down' } };
    expect((await wren.live.ask('pensOf', message)).error?.code).toBe('not-allowed');
    await pensOf({ stranger: 'up' });
    expect(
      (await at.live.ask('pensOf', { ...message, pens: { [wren.id]: 'sideways' } })).error,
    ).toBeDefined();
    expect(at.live.classState?.people.map(({ pen }) => pen)).toEqual([null, null]);
  });
});

describe('what students may put on a page', () => {
  it.each([
    ['ink', undefined, 'tool-away', 'tool-away'],
    ['words', undefined, undefined, 'tool-away'],
    ['everything', undefined, undefined, undefined],
  ] as const)('is %s', async (freedom, ink, words, shape) => {
    await rule({ freedom });
    expect((await put(wren)).code).toBe(ink);
    expect((await put(wren, aText())).code).toBe(words);
    expect((await put(wren, aShape())).code).toBe(shape);
  });

  it('does not stand in the way of taking a step back', async () => {
    const { mark } = await put(wren);
    await wren.live.submit(at.sitting, [{ do: 'remove', mark: mark.id }], 'gone');
    await rule({ freedom: 'ink' });
    await wren.live.submit(at.sitting, [], 'back', 'gone');
    expect(await seenBy(wren)).toContain(mark.id);
  });

  it('is the teacher’s to say, and nothing but what there is', async () => {
    const set = { freedom: 'everything' };
    expect((await wren.live.ask('rules', { sitting: at.sitting.id, set })).error?.code).toBe('not-allowed');
    for (const bad of [{ freedom: 'all' }, { seeMarks: 1 }, { more: true }, { hidden: ['x'.repeat(200)] }])
      expect((await at.live.ask('rules', { sitting: at.sitting.id, set: bad })).error).toBeDefined();
    expect(at.live.classState?.rules.freedom).toBe('everything');
  });
});

describe('what students see of each other', () => {
  it('is nothing where the teacher says so, neither stored, told nor wet, until it is said otherwise', async () => {
    const before = await put(wren);
    await rule({ seeMarks: false });
    const after = await put(wren);
    const { mark: mine } = await put(tove);
    const { mark: teachers } = await put({ live: at.live, id: at.me });
    await expect.poll(() => toldTo(tove)).toEqual(expect.arrayContaining([mine.id, teachers.id]));
    expect(toldTo(tove)).not.toContain(after.mark.id);
    expect(new Set(await seenBy(tove))).toEqual(new Set([mine.id, teachers.id]));
    expect(await seenBy({ live: at.live, id: at.me })).toContain(after.mark.id);
    draw(wren, 'wet');
    draw(at, 'wet-too');
    await expect.poll(() => heardBy(tove)).toEqual(['wet-too']);
    expect(heardBy(at)).toContain('wet');
    await rule({ seeMarks: true });
    expect(await seenBy(tove)).toEqual(expect.arrayContaining([before.mark.id, after.mark.id]));
  });

  it('is not even that something was changed or taken away', async () => {
    const { mark } = await put(wren);
    await rule({ seeMarks: false });
    const heard = tove.live.operations.length;
    await wren.live.submit(at.sitting, [{ do: 'patch', mark: mark.id, set: { order: 'a5' } }]);
    await wren.live.submit(at.sitting, [{ do: 'remove', mark: mark.id }]);
    await expect.poll(() => tove.live.operations.length).toBe(heard + 2);
    const changes = tove.live.operations.slice(heard).flatMap(({ logged }) => logged.operation.changes);
    expect(changes).toEqual([]);
  });

  it('leaves out one whose marks are hidden, who goes on seeing them', async () => {
    const { mark } = await put(wren);
    const { mark: other } = await put(tove);
    const sight = tove.live.classState!.sight;
    await rule({ hidden: [wren.id] });
    expect(await seenBy(tove)).toEqual([other.id]);
    expect(new Set(await seenBy(wren))).toEqual(new Set([mark.id, other.id]));
    // Who knows the page is told to read it anew, and not who is meant.
    await expect.poll(() => tove.live.classState?.sight).not.toBe(sight);
    expect(tove.live.classState?.rules.hidden).toEqual([]);
    expect(at.live.classState?.rules.hidden).toEqual([wren.id]);
  });

  it('are no names where the teacher says so', async () => {
    await rule({ seeNames: false });
    await expect.poll(() => wren.live.classState?.people.map(({ name }) => name)).toEqual(['', '']);
    expect(at.live.classState?.people.map(({ name }) => name)).toEqual(['Wren', 'Tove']);
  });
});

describe('who looks elsewhere', () => {
  it('is told to the teacher alone, by connection', async () => {
    await wren.live.ask('looks', { sitting: at.sitting.id, away: true });
    await expect.poll(() => at.live.classState?.people.map(({ away }) => away)).toEqual([true, false]);
    expect(tove.live.classState?.people.some(({ away }) => away)).toBe(false);
    await wren.live.ask('looks', { sitting: at.sitting.id, away: false });
    await expect.poll(() => at.live.classState?.people.some(({ away }) => away)).toBe(false);
  });

  it('is here again who comes back by a new connection', async () => {
    await wren.live.ask('looks', { sitting: at.sitting.id, away: true });
    wren.live.close();
    await expect.poll(() => at.live.classState?.people[0]).toMatchObject({ here: false, away: false });
    const again = await joiner(server, at)('Wren', { token: wren.token! });
    await expect.poll(() => at.live.classState?.people[0]).toMatchObject({ here: true, away: false });
    again.live.close();
  });
});

describe('what was removed', () => {
  const removals = () =>
    teacher.send<{ id: string; by: string; marks: object[]; missing: number }[]>(
      'GET',
      `/api/sittings/${at.sitting.id}/removals`,
    );

  it('is told with who did it and whose it was, and can be put back', async () => {
    const { mark } = await put(wren);
    await wren.live.submit(at.sitting, [{ do: 'remove', mark: mark.id }], 'cleared');
    const { body } = await removals();
    expect(body).toMatchObject([
      { id: 'cleared', by: wren.id, missing: 1, marks: [{ author: wren.id, what: 'ink', count: 1 }] },
    ]);
    const path = `/api/sittings/${at.sitting.id}/removals/cleared/back`;
    expect((await teacher.send('POST', path)).status).toBe(204);
    expect(await seenBy(tove)).toContain(mark.id);
    expect((await removals()).body[0]).toMatchObject({ missing: 0 });
    // A second time there is nothing to be put back.
    expect((await teacher.send('POST', path)).status).toBe(204);
    expect((await seenBy(tove)).filter((id) => id === mark.id)).toHaveLength(1);
  });

  it('is the teacher’s to know', async () => {
    const bearer = { authorization: `Bearer ${wren.token}` };
    const path = `/api/sittings/${at.sitting.id}/removals`;
    const { status } = await teacher.send('POST', `${path}/nothing/back`);
    expect(status).toBe(404);
    const asStudent = await fetch(`${server.url}${path}`, { headers: bearer });
    expect(asStudent.status).toBe(401);
  });
});

describe('a page that is handed out as copies', () => {
  const say = (event: string, message: object) => at.live.ask(event, { sitting: at.sitting.id, ...message });
  const spaceOf = (id: string) => `student:${id}`;

  it('is each student’s own, whatever their browser says, and nobody else’s but the teacher’s to see', async () => {
    await say('ways', { ways: { [page()]: 'own' } });
    const { mark: hers } = await put(wren);
    const { mark: his } = await put(tove);
    const all = (await at.live.snapshot(at.sitting)).marks;
    expect(all.map(({ id, space }) => [id, space]).sort()).toEqual(
      [
        [hers.id, spaceOf(wren.id)],
        [his.id, spaceOf(tove.id)],
      ].sort(),
    );
    expect(await seenBy(wren)).toEqual([hers.id]);
    expect(toldTo(tove)).not.toContain(hers.id);
    draw(wren, 'astray');
    draw(at, 'led');
    await expect.poll(() => heardBy(tove)).toEqual(['led']);
    const { code } = await put(tove, { ...aStroke(), space: `student:${wren.id}` });
    expect(code).toBe('not-yours');
  });

  it('goes back to the class without showing what was written on the copies', async () => {
    await say('ways', { ways: { [page()]: 'own' } });
    const { mark } = await put(wren);
    await say('ways', { ways: { [page()]: 'class' } });
    const late = await put(wren, { ...aStroke(), space: `student:${wren.id}` });
    expect(await seenBy(tove)).toEqual([]);
    expect(new Set(await seenBy(wren))).toEqual(new Set([mark.id, late.mark.id]));
    expect(at.live.classState?.ways).toEqual({});
  });

  it('is shared by those of a table', async () => {
    const join = joiner(server, at);
    const odo = await join('Odo');
    await say('tables', {
      tables: [
        { id: '1', students: [wren.id, odo.id] },
        { id: '2', students: [tove.id] },
      ],
    });
    await say('ways', { ways: { [page()]: 'tables' } });
    const { mark } = await put(wren);
    await expect.poll(() => toldTo(odo)).toContain(mark.id);
    expect(toldTo(tove)).not.toContain(mark.id);
    // Who is moved to another table sees that one's.
    await say('tables', {
      tables: [
        { id: '1', students: [wren.id, tove.id] },
        { id: '2', students: [odo.id] },
      ],
    });
    expect(await seenBy(tove)).toEqual([mark.id]);
    expect(await seenBy(odo)).toEqual([]);
    odo.live.close();
  });

  it('is shown to all where the teacher shows one, until that is over', async () => {
    await say('ways', { ways: { [page()]: 'own' } });
    const { mark } = await put(wren);
    await say('showCopy', { copy: { page: page(), space: spaceOf(wren.id), named: false } });
    expect(await seenBy(tove)).toEqual([mark.id]);
    expect((await put(tove, { ...aStroke(), space: `student:${wren.id}` })).code).toBe('not-yours');
    await say('showCopy', { copy: null });
    expect(await seenBy(tove)).toEqual([]);
  });

  it('is the teacher’s to hand out, seat and show', async () => {
    for (const [event, message] of [
      ['ways', { ways: { [page()]: 'own' } }],
      ['tables', { tables: [] }],
      ['showCopy', { copy: null }],
    ] as const) {
      const answer = await wren.live.ask(event, { sitting: at.sitting.id, ...message });
      expect(answer.error?.code).toBe('not-allowed');
    }
    for (const [event, message] of [
      ['ways', { ways: { [page()]: 'mine' } }],
      ['tables', { tables: [{ id: '1', students: ['a', 'a'] }] }],
      ['showCopy', { copy: { page: page(), space: 'nowhere', named: true } }],
    ] as const)
      expect((await say(event, message)).error).toBeDefined();
  });
});
