import 'reflect-metadata';
import type {
  ChatMessage,
  ClassWords,
  ChatReply,
  NotedMessage,
  NotesReply,
  NoteStepsReply,
  SaidMessage,
} from '@doodla/core';
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
let wren: Pupil & { token: string };
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

const tell = <T>({ live }: Pick<Pupil, 'live'>, event: string, message: object = {}) =>
  live.ask<T>(event, { sitting: at.sitting.id, ...message });
const say = (who: Pick<Pupil, 'live'>, words: string, id: string = randomUUID()) =>
  tell<ChatMessage>(who, 'say', { id, words });
const rule = (set: object) => tell(at, 'rules', { set });
const heard = async (who: Pick<Pupil, 'live'>) => (await tell<ChatReply>(who, 'chat')).messages;
const wordsOf = async (who: Pick<Pupil, 'live'>) => (await heard(who)).map(({ words }) => words);

describe('the class chat', () => {
  it('is told to all as it is said, and is there for who comes later', async () => {
    const told: SaidMessage[] = [];
    tove.live.socket.on('said', (message: SaidMessage) => told.push(message));
    await say(wren, '  Why  does it bend? ');
    await say(at, 'Look at the middle.');
    await expect
      .poll(() => told.map(({ message }) => message.words))
      .toEqual(['Why does it bend?', 'Look at the middle.']);
    expect(told.map(({ message: { author, name } }) => [author, name])).toEqual([
      [wren.id, 'Wren'],
      [at.me, null],
    ]);
    const late = await joiner(server, at)('Odo');
    expect(await wordsOf(late)).toEqual(['Why does it bend?', 'Look at the middle.']);
    late.live.close();
  });

  it('has a message once, however often it arrives', async () => {
    const id = randomUUID();
    await Promise.all([say(wren, 'Once', id), say(wren, 'Once', id)]);
    expect((await say(wren, 'Once', id)).words).toBe('Once');
    expect(await wordsOf(at)).toEqual(['Once']);
    expect((await say(tove, 'Mine under your id', id)).error?.code).toBe('already-there');
    expect(await wordsOf(at)).toEqual(['Once']);
  });

  it('is switched off for all, and for one', async () => {
    await rule({ muted: [wren.id] });
    expect((await say(wren, 'Hm')).error?.code).toBe('chat-muted');
    expect((await say(tove, 'Yes')).error).toBeUndefined();
    await rule({ chat: false });
    expect((await say(tove, 'No')).error?.code).toBe('chat-off');
    expect((await say(at, 'Quiet now')).error).toBeUndefined();
    expect(await wordsOf(tove)).toEqual(['Yes', 'Quiet now']);
  });

  it('loses what the teacher takes away, for students only, until it is put back', async () => {
    const { id } = await say(wren, 'Rude');
    expect((await tell(wren, 'unsay', { id, removed: true })).error?.code).toBe('not-allowed');
    await tell(at, 'unsay', { id, removed: true });
    expect(await heard(tove)).toMatchObject([{ id, words: '', removed: true }]);
    expect(await heard(at)).toMatchObject([{ id, words: 'Rude', removed: true }]);
    await tell(at, 'unsay', { id, removed: false });
    expect(await wordsOf(tove)).toEqual(['Rude']);
    expect((await tell(at, 'unsay', { id: 'nothing', removed: true })).error?.code).toBe('not-found');
  });

  it('says no names where they are not to be seen, and nothing of who is hidden', async () => {
    await say(wren, 'Hello');
    await rule({ seeNames: false });
    expect(await heard(tove)).toMatchObject([{ name: '', words: 'Hello' }]);
    expect(await heard(wren)).toMatchObject([{ name: 'Wren' }]);
    expect(await heard(at)).toMatchObject([{ name: 'Wren' }]);
    await rule({ hidden: [wren.id] });
    expect(await heard(tove)).toEqual([]);
    const told: SaidMessage[] = [];
    tove.live.socket.on('said', (message: SaidMessage) => told.push(message));
    await say(wren, 'Does anybody hear me?');
    await say(at, 'I do');
    await expect.poll(() => told.map(({ message }) => message.words)).toEqual(['I do']);
    expect(await wordsOf(wren)).toEqual(['Hello', 'Does anybody hear me?', 'I do']);
  });

  it('takes words, not too many, not too fast, and only of who is in the class', async () => {
    expect((await say(wren, ' ​ ')).error?.code).toBe('no-words');
    expect((await say(wren, 'x'.repeat(501))).error?.code).toBe('bad-mark');
    expect((await tell(wren, 'say', { id: randomUUID() })).error?.code).toBe('bad-mark');
    expect((await tell(wren, 'say', { id: randomUUID(), words: { a: 1 } })).error?.code).toBe('bad-mark');
    const replies = await Promise.all(Array.from({ length: 30 }, (_, i) => say(wren, `${i}`)));
    expect(replies.some(({ error }) => error?.code === 'too-fast')).toBe(true);
    const elsewhere = await aClass(server, teacher, 'Next door');
    const stranger = await joiner(server, elsewhere)('Finn');
    expect((await say(stranger, 'Hi')).error?.code).toBe('not-found');
    expect((await tell(stranger, 'chat')).error?.code).toBe('not-found');
    expect((await tell(stranger, 'notes')).error?.code).toBe('not-found');
    stranger.live.close();
    elsewhere.live.close();
  });
});

const letters = (from: number, text: string) => ({
  stepType: 'replace',
  from,
  to: from,
  slice: { content: [{ type: 'text', text }] },
});
const write = (who: Pick<Pupil, 'live'>, version: number, steps: object[], client = 'c1') =>
  tell<NoteStepsReply>(who, 'noteSteps', { version, steps, client });
const notesOf = (who: Pick<Pupil, 'live'>) => tell<NotesReply>(who, 'notes');

describe('what a class has said', () => {
  it('is there afterwards for its teacher: chat, notes, questions with their answers', async () => {
    const path = `/api/sittings/${at.sitting.id}/words`;
    expect((await teacher.send<ClassWords>('GET', path)).body).toEqual({ chat: [], notes: null, polls: [] });
    await say(wren, 'It bends');
    const { id } = await say(wren, 'Rude');
    await tell(at, 'unsay', { id, removed: true });
    await write(at, 0, [letters(1, 'Beam')]);
    const poll = {
      id: randomUUID(),
      kind: 'yes-no',
      question: 'Does it?',
      options: ['yes', 'no'],
      anonymous: true,
      hidden: true,
    };
    await tell(at, 'ask', { poll });
    await tell(wren, 'answer', { poll: poll.id, value: 0 });
    await tell(at, 'ask', { poll: { ...poll, id: randomUUID(), question: 'And this?' } });
    await teacher.send('POST', `/api/sittings/${at.sitting.id}/end`, { drop: false });
    const { body } = await teacher.send<ClassWords>('GET', path);
    expect(body.chat.map(({ name, words }) => [name, words])).toEqual([['Wren', 'It bends']]);
    expect(JSON.stringify(body.notes)).toContain('Beam');
    expect(body.polls).toMatchObject([
      { question: 'Does it?', open: false, answers: [{ student: null, value: 0 }] },
      { question: 'And this?', answers: [] },
    ]);
    const anyone = new Client(server.url);
    const bearer = { authorization: `Bearer ${wren.token}` };
    expect((await anyone.send('GET', path)).status).toBe(401);
    expect((await anyone.send('GET', path, undefined, bearer)).status).toBe(401);
    expect((await teacher.send('GET', `/api/sittings/${randomUUID()}/words`)).status).toBe(404);
  });
});

describe('the class’s notes', () => {
  it('are written by the teacher and whoever they name, and seen by all as they are written', async () => {
    const told: NotedMessage[] = [];
    tove.live.socket.on('noted', (message: NotedMessage) => told.push(message));
    expect(await write(at, 0, [letters(1, 'Beam')])).toEqual({ taken: true });
    expect((await write(wren, 1, [letters(1, 'x')])).error?.code).toBe('not-a-scribe');
    await rule({ scribes: [wren.id] });
    expect(await write(wren, 1, [letters(5, 's')], 'c2')).toEqual({ taken: true });
    await expect
      .poll(() => told.map(({ version, clients }) => [version, clients]))
      .toEqual([
        [0, ['c1']],
        [1, ['c2']],
      ]);
    expect(JSON.stringify((await notesOf(tove)).doc)).toContain('Beams');
  });

  it('tell who was behind what came first, and are kept through a restart', async () => {
    await write(at, 0, [letters(1, 'Beam')]);
    expect(await write(at, 0, [letters(1, 'Arch')], 'c2')).toMatchObject({
      taken: false,
      missed: { version: 0, steps: [letters(1, 'Beam')], clients: ['c1'] },
    });
    for (const { live } of [wren, tove, at]) live.close();
    await server.stop();
    server = await startServer({}, server.data);
    const again = { live: await LiveClient.connect(server.url, { token: wren.token }) };
    expect(await notesOf(again)).toMatchObject({ version: 1 });
    again.live.close();
    teacher = Object.assign(new Client(server.url), { cookie: teacher.cookie });
  });

  it('refuse what cannot be written, once the class has ended too', async () => {
    expect((await write(at, 0, [{ stepType: 'burn' }])).error?.code).toBe('notes-bad');
    expect((await write(at, 0, [letters(1, 'x'.repeat(70_000))])).error?.code).toBe('notes-full');
    expect((await write(at, 0, [letters(1, 'x'.repeat(250_000))])).error?.code).toBe('too-large');
    for (const bad of [{ steps: [] }, { steps: 'x' }, { steps: [5] }, { version: -1 }, { client: '' }])
      expect(
        (await tell(at, 'noteSteps', { version: 0, steps: [letters(1, 'x')], client: 'c', ...bad })).error
          ?.code,
      ).toBe('bad-mark');
    await teacher.send('POST', `/api/sittings/${at.sitting.id}/end`, { drop: false });
    expect((await write(at, 0, [letters(1, 'x')])).error?.code).toBe('ended');
    expect((await say(wren, 'Too late')).error?.code).toBe('ended');
  });
});
