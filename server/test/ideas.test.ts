import 'reflect-metadata';
import type { IdeaRules, NoteMark, VotedMessage, VotesReply } from '@doodla/core';
import { IDEAS_AT_FIRST } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { DataSource } from 'typeorm';
import { IdeaVote } from '../src/ideas/ideaVote.entity.js';
import { aNote, aText } from '../../core/test/helpers/marks.js';
import type { TestClass } from './helpers/aClass.js';
import { aClass } from './helpers/aClass.js';
import type { Pupil } from './helpers/joining.js';
import { joiner } from './helpers/joining.js';
import type { Client, TestServer } from './helpers/server.js';
import { signedIn, startServer } from './helpers/server.js';

let server: TestServer;
let teacher: Client;
let at: TestClass;
let wren: Pupil;
let tove: Pupil;
let page: string;

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
  await say(at, 'pens', { up: true });
});
afterEach(() => {
  for (const { live } of [wren, tove, at]) live.close();
});

const say = <T>({ live }: Pick<Pupil, 'live'>, event: string, message: object) =>
  live.ask<T>(event, { sitting: at.sitting.id, ...message });
const collect = (set: Partial<IdeaRules> = {}) =>
  say(at, 'ideas', { set: { [page]: { ...IDEAS_AT_FIRST, ...set } } });
const vote = (who: Pick<Pupil, 'live'>, note?: string, up?: boolean) =>
  say<VotesReply>(who, 'vote', { page, ...(note && { note }), ...(up !== undefined && { up }) });
const aNoteBy = (author: string, set: Partial<NoteMark> = {}) =>
  aNote({ id: randomUUID(), page, author, order: 'a1', ...set });
const add = async ({ live, id }: Pupil, set: Partial<NoteMark> = {}) => {
  const mark = aNoteBy(id, set);
  expect((await live.submit(at.sitting, [{ do: 'add', mark }])).error).toBeUndefined();
  return mark.id;
};
const notes = async () => (await at.live.snapshot(at.sitting)).marks;
const boxes = async () => (await notes()).map((mark) => mark as { x: number; y: number; width: number });

describe('ideas', () => {
  it('that many add at the same place stand side by side soon, for everybody alike', async () => {
    await collect();
    await Promise.all([add(wren), add(tove), add(wren), add(tove)]);
    await expect.poll(async () => new Set((await boxes()).map(({ x, y }) => `${x} ${y}`)).size).toBe(4);
    const sizes = new Set((await boxes()).map(({ width }) => width));
    expect(sizes.size).toBe(1);
    const seen = (await tove.live.snapshot(at.sitting)).marks;
    expect(new Map(seen.map((mark) => [mark.id, mark]))).toEqual(
      new Map((await notes()).map((mark) => [mark.id, mark])),
    );
  });

  it('stay where they are put on pages on which none are collected', async () => {
    await add(wren);
    await collect();
    await say(at, 'ideas', { set: { [page]: null } });
    await add(tove, { x: 33 });
    await expect.poll(async () => (await boxes()).map(({ x }) => x)).toContain(33);
  });

  it('are put together by students only where the teacher lets them', async () => {
    await collect();
    const note = await add(wren);
    const group = [{ do: 'patch', mark: note, set: { group: 'g1' } }];
    expect((await tove.live.submit(at.sitting, group)).error?.code).toBe('not-yours');
    await collect({ grouping: true });
    expect((await tove.live.submit(at.sitting, group)).error).toBeUndefined();
    const words = [{ do: 'patch', mark: note, set: { text: 'Mine' } }];
    expect((await tove.live.submit(at.sitting, words)).error?.code).toBe('not-yours');
  });

  it('are no longer taken once the teacher says so', async () => {
    await collect({ adding: false });
    const { error } = await wren.live.submit(at.sitting, [{ do: 'add', mark: aNoteBy(wren.id) }]);
    expect(error?.code).toBe('tool-away');
  });

  it('lose the title of a group that has no notes any more', async () => {
    await collect();
    const titled = await add(wren, { group: 'g1' });
    const mark = aText({ id: 'title', page, author: at.me, group: 'g1', order: 'a0' });
    expect((await at.live.submit(at.sitting, [{ do: 'add', mark }])).error).toBeUndefined();
    await at.live.submit(at.sitting, [{ do: 'patch', mark: titled, set: { group: null } }]);
    await expect.poll(async () => (await notes()).map(({ id }) => id)).toEqual([titled]);
  });

  it('are collected by the teacher alone, as one can say', async () => {
    expect((await say(wren, 'ideas', { set: { [page]: IDEAS_AT_FIRST } })).error?.code).toBe('not-allowed');
    expect((await say(at, 'ideas', { set: { [page]: { votes: 3 } } })).error?.code).toBe('bad-mark');
    const many = Object.fromEntries(Array.from({ length: 101 }, (_, i) => [`p${i}`, IDEAS_AT_FIRST]));
    expect((await say(at, 'ideas', { set: many })).error?.code).toBe('bad-mark');
    const most = Object.fromEntries(Object.entries(many).slice(0, 100));
    expect((await say(at, 'ideas', { set: most })).error).toBeUndefined();
    expect((await collect()).error?.code).toBe('too-many-idea-pages');
  });
});

describe('votes', () => {
  it('are as many as each has, can be taken back, and are kept', async () => {
    await collect({ votes: 2 });
    const ids = [await add(wren), await add(tove), await add(tove)];
    expect((await vote(wren, ids[0], true)).mine).toEqual([ids[0]]);
    await vote(wren, ids[1], true);
    expect((await vote(wren, ids[2], true)).error?.code).toBe('no-votes-left');
    await vote(wren, ids[0], false);
    expect((await vote(wren, ids[2], true)).error).toBeUndefined();
    expect((await vote(wren, ids[2], true)).mine).toEqual([ids[1], ids[2]]);
    const kept = server.app.get(DataSource).getRepository(IdeaVote);
    expect((await kept.findBy({ studentId: wren.id })).map(({ markId }) => markId).sort()).toEqual(
      [ids[1]!, ids[2]!].sort(),
    );
  });

  it('that come at once are no more than each has', async () => {
    await collect({ votes: 1 });
    const ids = await Promise.all(Array.from({ length: 6 }, () => add(tove)));
    await Promise.all(ids.map((id) => vote(wren, id, true)));
    expect((await vote(wren)).mine).toHaveLength(1);
  });

  it('are counted for all only when the teacher shows them', async () => {
    await collect({ votes: 3 });
    const note = await add(wren);
    const told: VotedMessage[] = [];
    tove.live.socket.on('voted', (message: VotedMessage) => told.push(message));
    const reply = await vote(wren, note, true);
    expect(reply.counts).toBeNull();
    expect((await vote(at)).counts).toEqual({ [note]: 1 });
    await collect({ votes: 3, counted: true });
    await expect.poll(() => told.at(-1)?.counts).toEqual({ [note]: 1 });
    expect((await vote(tove)).counts).toEqual({ [note]: 1 });
  });

  it('put what has most of them first, where the teacher wants that', async () => {
    await collect({ votes: 3, sorted: true });
    const [first, second] = [await add(wren, { order: 'a1' }), await add(wren, { order: 'a2' })];
    await vote(tove, second, true);
    await expect
      .poll(async () => {
        const at = new Map((await notes()).map((mark) => [mark.id, mark as { x: number; width: number }]));
        return at.get(second)!.x < at.get(first)!.x;
      })
      .toBe(true);
  });

  it('are for notes of this class while there is voting, and by its students', async () => {
    await collect();
    const note = await add(wren);
    expect((await vote(tove, note, true)).error?.code).toBe('no-voting');
    await collect({ votes: 2 });
    expect((await vote(tove, 'nothing', true)).error?.code).toBe('no-voting');
    expect(await say(at, 'vote', { page: 'made-up' })).toEqual({ mine: [], counts: null });
    const elsewhere = await aClass(server, teacher, 'Next door');
    const stranger = await joiner(server, elsewhere)('Finn');
    expect((await vote(stranger, note, true)).error?.code).toBe('not-found');
    expect((await vote(at, note, true)).mine).toEqual([]);
    for (const bad of [{ page: 5 }, { page, note: 'x'.repeat(200) }, { page, note, up: 'yes' }])
      expect((await say(tove, 'vote', bad)).error?.code).toBe('bad-mark');
    stranger.live.close();
    elsewhere.live.close();
  });
});
