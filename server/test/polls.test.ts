import 'reflect-metadata';
import type { Poll, ReactedMessage } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
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

beforeAll(async () => {
  server = await startServer();
  teacher = await signedIn(server);
});
afterAll(() => server.remove());
beforeEach(async () => {
  at = await aClass(server, teacher);
  const join = joiner(server, at);
  [wren, tove] = [await join('Wren'), await join('Tove')];
});
afterEach(() => {
  for (const { live } of [wren, tove, at]) live.close();
});

const poll = (set: Partial<Poll> = {}): Poll => ({
  id: randomUUID(),
  kind: 'letters',
  question: 'Which one bends?',
  options: ['A', 'B', 'C'],
  anonymous: false,
  hidden: true,
  ...set,
});
const say = ({ live }: Pick<Pupil, 'live'>, event: string, message: object) =>
  live.ask(event, { sitting: at.sitting.id, ...message });
const ask = async (set: Partial<Poll> = {}) => {
  const asked = poll(set);
  expect((await say(at, 'ask', { poll: asked })).error).toBeUndefined();
  return asked.id;
};

describe('a poll', () => {
  it('is answered by each student once, changed as they like, and told to the teacher', async () => {
    const id = await ask();
    await expect.poll(() => wren.live.classState?.poll?.question).toBe('Which one bends?');
    await say(wren, 'answer', { poll: id, value: 0 });
    await say(tove, 'answer', { poll: id, value: 2 });
    await say(wren, 'answer', { poll: id, value: 1 });
    await expect
      .poll(() => at.live.classState?.poll?.answers)
      .toEqual(
        expect.arrayContaining([
          { student: tove.id, value: 2 },
          { student: wren.id, value: 1 },
        ]),
      );
    expect(at.live.classState?.poll?.answered).toBe(2);
  });

  it('shows students nothing while it is hidden and open, and never who has answered what', async () => {
    const id = await ask();
    await say(wren, 'answer', { poll: id, value: 1 });
    await expect.poll(() => tove.live.classState?.poll?.answered).toBe(1);
    expect(tove.live.classState?.poll?.answers).toBeNull();
    await say(at, 'poll', { poll: id, open: false, away: false });
    await expect.poll(() => tove.live.classState?.poll?.answers).toEqual([{ student: null, value: 1 }]);
    expect((await say(tove, 'answer', { poll: id, value: 0 })).error?.code).toBe('poll-closed');
    await say(at, 'poll', { poll: id, open: true, away: false });
    expect((await say(tove, 'answer', { poll: id, value: 0 })).error).toBeUndefined();
  });

  it('without names tells the teacher none either', async () => {
    const id = await ask({ anonymous: true });
    await say(wren, 'answer', { poll: id, value: 1 });
    await expect.poll(() => at.live.classState?.poll?.answers).toEqual([{ student: null, value: 1 }]);
  });

  it('is put away by the teacher, or by the next one', async () => {
    const first = await ask();
    const second = await ask({ kind: 'words', options: [] });
    await expect.poll(() => wren.live.classState?.poll?.id).toBe(second);
    expect((await say(wren, 'answer', { poll: first, value: 0 })).error?.code).toBe('poll-closed');
    await say(at, 'poll', { poll: second, open: false, away: true });
    await expect.poll(() => wren.live.classState?.poll).toBeNull();
  });

  it('refuses what is no answer, and whoever is not a student of this class', async () => {
    const id = await ask();
    for (const value of [3, 'A', 0.5])
      expect((await say(wren, 'answer', { poll: id, value })).error?.code).toBe('no-answer');
    expect((await say(wren, 'answer', { poll: id, value: { a: 1 } })).error).toBeDefined();
    expect((await say(at, 'answer', { poll: id, value: 0 })).error?.code).toBe('students-only');
    const other = await aClass(server, teacher, 'Other');
    const odo = await joiner(server, other)('Odo');
    expect((await say(odo, 'answer', { poll: id, value: 0 })).error?.code).toBe('students-only');
    for (const one of [odo, other]) one.live.close();
  });

  it('says what is seen, whatever letters it is sent in', async () => {
    const id = await ask({ kind: 'words', question: '\u202eWhich\u200b  one? ', options: [], hidden: false });
    await expect.poll(() => wren.live.classState?.poll?.question).toBe('Which one?');
    expect((await say(wren, 'answer', { poll: id, value: '\u200b \u200b' })).error?.code).toBe('no-answer');
    await say(wren, 'answer', { poll: id, value: ' the \u202e beam' });
    await expect.poll(() => at.live.classState?.poll?.answers?.[0]?.value).toBe('the beam');
    const twice = poll({ kind: 'answers', options: ['Arch', 'Ar\u200bch'] });
    expect((await say(at, 'ask', { poll: twice })).error?.code).toBe('bad-mark');
  });

  it('is the teacher’s to ask and to close, and nothing but a poll', async () => {
    const id = await ask();
    expect((await say(wren, 'ask', { poll: poll() })).error?.code).toBe('not-allowed');
    expect((await say(wren, 'poll', { poll: id, open: false, away: true })).error?.code).toBe('not-allowed');
    expect((await say(at, 'ask', { poll: { ...poll(), options: ['A'] } })).error).toBeDefined();
    expect((await say(at, 'poll', { poll: 'another', open: false, away: true })).error?.code).toBe(
      'not-found',
    );
  });

  it('outlives the server', async () => {
    const id = await ask();
    await say(wren, 'answer', { poll: id, value: 1 });
    for (const { live } of [wren, tove, at]) live.close();
    await server.stop();
    const again = await startServer({}, server.data);
    const live = await LiveClient.connect(again.url, { cookie: teacher.cookie });
    const state = await live.enter(at.sitting);
    expect(state.poll).toMatchObject({ id, open: true, answers: [{ student: wren.id, value: 1 }] });
    live.close();
    await again.stop();
    server = await startServer({}, server.data);
    const { cookie } = teacher;
    teacher = Object.assign(new Client(server.url), { cookie });
  });
});

describe('hands', () => {
  const hands = ({ live }: Pick<Pupil, 'live'>) => live.classState?.hands;

  it('go up in their order, and down by their owners, the teacher, or with who has left', async () => {
    await say(tove, 'hand', { up: true });
    await say(wren, 'hand', { up: true });
    await expect.poll(() => hands(at)).toEqual([tove.id, wren.id]);
    await say(tove, 'hand', { up: false });
    await expect.poll(() => hands(at)).toEqual([wren.id]);
    await say(at, 'hand', { up: false, who: wren.id });
    await expect.poll(() => hands(wren)).toEqual([]);
    await say(wren, 'hand', { up: true });
    await say(tove, 'hand', { up: true });
    await expect.poll(() => hands(at)).toHaveLength(2);
    tove.live.close();
    await expect.poll(() => hands(at)).toEqual([wren.id]);
    await say(at, 'hand', { up: false });
    await expect.poll(() => hands(at)).toEqual([]);
  });

  it('of others are not a student’s to put down, and reactions are the teacher’s to hear', async () => {
    await say(wren, 'hand', { up: true });
    await say(tove, 'hand', { up: false, who: wren.id });
    await expect.poll(() => hands(at)).toEqual([wren.id]);
    const heard: ReactedMessage[] = [];
    const overheard: ReactedMessage[] = [];
    at.live.socket.on('reacted', (message: ReactedMessage) => heard.push(message));
    tove.live.socket.on('reacted', (message: ReactedMessage) => overheard.push(message));
    await say(wren, 'react', { which: 'lost' });
    await expect.poll(() => heard).toEqual([{ sitting: at.sitting.id, which: 'lost', student: wren.id }]);
    expect(overheard).toEqual([]);
    expect((await say(wren, 'react', { which: 'applause' })).error).toBeDefined();
    expect((await say(at, 'react', { which: 'lost' })).error?.code).toBe('students-only');
  });
});
