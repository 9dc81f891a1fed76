import 'reflect-metadata';
import type { CodeReply, Group, PastSitting } from '@doodla/core';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { TestClass } from './helpers/aClass.js';
import { aClass } from './helpers/aClass.js';
import { askIn, joiner } from './helpers/joining.js';
import type { Answer, TestServer } from './helpers/server.js';
import { Client, signedIn, startServer } from './helpers/server.js';

let server: TestServer;
let teacher: Client;
let at: TestClass;

beforeAll(async () => {
  server = await startServer();
  teacher = await signedIn(server);
});
afterAll(() => server.remove());
beforeEach(async () => {
  at = await aClass(server, teacher);
});
afterEach(() => at.live.close());

const door = (set: object, of = at) =>
  teacher.send<{ code: string; message: string }>('POST', `/api/sittings/${of.sitting.id}/door`, set);
const look = (code: string, password?: string): Promise<Answer<CodeReply & { code: string }>> =>
  new Client(server.url).send('POST', '/api/join/look', { code, password });
const asked = (ask: string) =>
  new Client(server.url).send<{ token?: string }>('GET', `/api/join/asks/${ask}`);
const nod = (id: string, grant: boolean) =>
  teacher.send('POST', `/api/sittings/${at.sitting.id}/asks/${id}`, { grant });
const group = async (set: object = {}): Promise<Group> => {
  const whole = { title: '8 Heron', names: ['Ida Holm', 'Wren Moss', 'Odo Vale'], keepsCode: false, ...set };
  return (await teacher.send<Group>('POST', '/api/groups', whole)).body;
};

describe('a class in which whoever comes waits', () => {
  it('lets nobody in before the teacher nods, and gives each a seat of their own then', async () => {
    await door({ nodding: true });
    const [wren, tove] = [(await askIn(server, at, 'Wren')).body, (await askIn(server, at, 'Tove')).body];
    expect(wren).toMatchObject({ why: 'new' });
    expect((await asked(wren.ask)).body).toEqual({ ask: wren.ask, why: 'new' });
    await expect
      .poll(() => at.live.classState?.asks.map(({ name, why }) => `${name} ${why}`))
      .toEqual(['Wren new', 'Tove new']);
    expect(at.live.classState?.people).toEqual([]);
    for (const { id, name } of at.live.classState!.asks) await nod(id, name === 'Wren');
    expect((await asked(wren.ask)).body.token).toBeDefined();
    expect((await asked(tove.ask)).status).toBe(404);
    await expect.poll(() => at.live.classState?.people.map(({ name }) => name)).toEqual(['Wren']);
  });

  it('does not tell students who waits', async () => {
    const wren = await joiner(server, at)('Wren');
    await door({ nodding: true });
    await askIn(server, at, 'Tove');
    await expect.poll(() => at.live.classState?.asks).toHaveLength(1);
    expect(wren.live.classState?.asks).toEqual([]);
    wren.live.close();
  });

  it('lets those in again who were in it before', async () => {
    const { token, live } = await joiner(server, at)('Wren');
    live.close();
    await door({ nodding: true });
    expect((await askIn(server, at, 'Wren', { token })).body.token).toBeDefined();
    // Somebody else by the name of one who is away is asked about.
    await expect.poll(() => at.live.classState?.people[0]?.here).toBe(false);
    expect((await askIn(server, at, 'Wren')).body.why).toBe('new');
  });
});

describe('a class with a password', () => {
  it('lets in who knows it, and tells nobody else what there is', async () => {
    const { id } = await group();
    await door({ password: 'tower bridge', group: id });
    expect((await look(at.code)).body).toMatchObject({ wantsPassword: true, names: [] });
    expect((await look(at.code, 'wrong')).body.code).toBe('wrong-class-password');
    expect((await look(at.code, 'tower bridge')).body.names).toContain('Wren Moss');
    expect((await askIn(server, at, 'Wren Moss')).body.code).toBe('password-wanted');
    expect((await askIn(server, at, 'Wren Moss', { password: 'no' })).body.code).toBe('wrong-class-password');
    const { body } = await askIn(server, at, 'Wren Moss', { password: 'tower bridge' });
    expect(body.token).toBeDefined();
    // Who has been in does not need it again.
    expect((await askIn(server, at, 'Wren Moss', { token: body.token })).body.token).toBeDefined();
    expect(at.live.classState?.hasPassword).toBe(true);
    await door({ password: '' });
    expect((await askIn(server, at, 'Odo Vale')).body.token).toBeDefined();
  });

  it('lets a whole class in that comes at once', async () => {
    await door({ password: 'tower bridge' });
    const coming = Array.from({ length: 60 }, (_, i) =>
      askIn(server, at, `Student ${i}`, { password: 'tower bridge' }),
    );
    const seats = await Promise.all(coming);
    expect(seats.map(({ status }) => status)).toEqual(Array(60).fill(201));
    const looks = seats.map(({ body: { student } }) => `${student.colour} ${student.dash}`);
    expect(new Set(looks).size).toBe(60);
    // Another password from then on.
    await door({ password: 'suspension' });
    expect((await askIn(server, at, 'Late', { password: 'tower bridge' })).body.code).toBe(
      'wrong-class-password',
    );
    expect((await askIn(server, at, 'Late', { password: 'suspension' })).status).toBe(201);
  });

  it('keeps it to itself', async () => {
    await door({ password: 'tower bridge' });
    const lesson = await teacher.send<object>('GET', `/api/lessons/${at.lesson.id}`);
    const sitting = await teacher.send<object>('GET', `/api/sittings/${at.sitting.id}`);
    for (const { status, body } of [lesson, sitting]) {
      expect(status).toBe(200);
      expect(JSON.stringify(body)).not.toMatch(/password|argon2/i);
    }
  });

  it('is not opened by a place in another class', async () => {
    const other = await aClass(server, teacher, 'Other');
    const { token, live } = await joiner(server, other)('Wren');
    await door({ password: 'tower bridge' });
    expect((await askIn(server, at, 'Wren', { token })).body.code).toBe('password-wanted');
    for (const one of [live, other.live]) one.close();
  });
});

describe('a group', () => {
  it('has names to choose from, without those who are here; who is not on the list is asked about', async () => {
    const { id } = await group();
    expect((await look(at.code)).body.names).toEqual([]);
    await door({ group: id });
    const { live } = await joiner(server, at)('wren moss');
    expect((await look(at.code)).body.names).toEqual(['Ida Holm', 'Odo Vale']);
    expect((await askIn(server, at, 'Stranger')).body.why).toBe('not-listed');
    expect(at.live.classState?.group?.title).toBe('8 Heron');
    expect(at.live.classState?.group?.names).toContain('Ida Holm');
    expect(live.classState?.group).toBeNull();
    live.close();
  });

  it('keeps its code from sitting to sitting, and takes it from one that was never ended', async () => {
    const { id, code } = await group({ keepsCode: true });
    expect((await look(code!)).body.code).toBe('not-begun');
    expect((await door({ group: id })).body.code).toBe(code);
    expect((await look(code!)).status).toBe(200);
    const { live } = await joiner(server, { ...at, code: code! })('Ida Holm');

    const next = await aClass(server, teacher, 'Tomorrow');
    expect((await door({ group: id }, next)).body.code).toBe(code);
    expect((await look(code!)).body.title).toBe('Tomorrow');
    const before = await teacher.send<{ code: string }>('GET', `/api/sittings/${at.sitting.id}`);
    expect(before.body.code).not.toBe(code);
    expect((await live.open(at.sitting)).error).toBeUndefined();
    for (const one of [live, next.live]) one.close();
  });

  it('keeps the code that it has when its names change, and is gone with its list alone', async () => {
    const { id, code } = await group({ keepsCode: true });
    await door({ group: id });
    const set = { title: '8 Linnet', names: ['Ida Holm'], keepsCode: true };
    const changed = await teacher.send<Group>('PUT', `/api/groups/${id}`, set);
    expect(changed.body).toEqual({ id, title: '8 Linnet', names: ['Ida Holm'], code });
    expect((await teacher.send('DELETE', `/api/groups/${id}`)).status).toBe(204);
    expect((await teacher.send('GET', `/api/sittings/${at.sitting.id}`)).status).toBe(200);
  });

  it('is its teacher’s alone', async () => {
    const { id } = await group();
    const nobody = new Client(server.url);
    for (const [method, path] of [
      ['GET', '/api/groups'],
      ['DELETE', `/api/groups/${id}`],
    ])
      expect((await nobody.send(method!, path!)).status).toBe(401);
    expect((await door({ group: crypto.randomUUID() })).status).toBe(404);
  });

  it.each([
    ['no title', { title: ' ' }],
    ['a name without letters', { names: ['\u200b'] }],
    ['a name that is too long', { names: ['x'.repeat(41)] }],
    ['too many names', { names: Array.from({ length: 201 }, (_, i) => `Student ${i}`) }],
    ['names that are none', { names: [{ name: 'Wren' }] }],
  ])('is refused with %s', async (_, set) => {
    const whole = { title: '8 Heron', names: ['Wren'], keepsCode: false, ...set };
    expect((await teacher.send('POST', '/api/groups', whole)).status).toBe(400);
  });
});

describe('past classes', () => {
  it('are told with the last one of each group, newest first, and without dropped ones', async () => {
    const end = (of: TestClass, drop = false) =>
      teacher.send('POST', `/api/sittings/${of.sitting.id}/end`, { drop });
    const { id } = await group({ title: '8 Linnet' });
    const classes: TestClass[] = [];
    for (const title of ['Monday', 'Tuesday', 'Alone', 'Dropped']) {
      const one = await aClass(server, teacher, title);
      one.live.close();
      if (title.endsWith('day')) await door({ group: id }, one);
      await end(one, title === 'Dropped');
      classes.push(one);
    }
    const { body } = await teacher.send<PastSitting[]>('GET', '/api/sittings/past');
    expect(body.map(({ title, groupTitle }) => [title, groupTitle])).toEqual([
      ['Alone', null],
      ['Tuesday', '8 Linnet'],
    ]);
    expect(body[0]).toEqual({
      id: classes[2]!.sitting.id,
      title: 'Alone',
      lessonId: classes[2]!.lesson.id,
      lessonTitle: 'lesson',
      groupTitle: null,
      openedAt: expect.any(Number) as number,
    });
  });
});
