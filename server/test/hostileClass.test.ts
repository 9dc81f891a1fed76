import 'reflect-metadata';
import type { Mark } from '@doodla/core';
import { EMPTY_SCENE, IDEAS_AT_FIRST, LIVE, RULES_AT_FIRST } from '@doodla/core';
import fc from 'fast-check';
import { randomUUID } from 'node:crypto';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { TestClass } from './helpers/aClass.js';
import { aClass } from './helpers/aClass.js';
import type { Pupil } from './helpers/joining.js';
import { joiner } from './helpers/joining.js';
import { LiveClient, strokeBy } from './helpers/live.js';
import type { Client, TestServer } from './helpers/server.js';
import { signedIn, startServer } from './helpers/server.js';

let server: TestServer;
let teacher: Client;
let at: TestClass;
let elsewhere: TestClass;
let mallory: Pupil;
let wren: Pupil;

beforeAll(async () => {
  server = await startServer();
  teacher = await signedIn(server);
});
afterAll(() => server.remove());
beforeEach(async () => {
  at = await aClass(server, teacher);
  elsewhere = await aClass(server, teacher, 'Next door');
  const join = joiner(server, at);
  [mallory, wren] = [await join('Mallory'), await join('Wren')];
  await at.live.ask('pens', { sitting: at.sitting.id, up: true });
});
afterEach(() => {
  for (const { live } of [mallory, wren, at, elsewhere]) live.close();
});

const page = () => at.pages[0]!.id;

/** A message of each sort that is right as far as it goes; those that are the teacher's alone. */
const messages = (): { event: string; message: Record<string, unknown>; teachers: boolean }[] => {
  const poll = {
    id: randomUUID(),
    kind: 'yes-no',
    question: 'Does it?',
    options: ['yes', 'no'],
    anonymous: false,
    hidden: true,
  };
  const student = wren.id;
  const of = (event: string, message: Record<string, unknown>, teachers = true) => ({
    event,
    message,
    teachers,
  });
  return [
    of(LIVE.turn, { page: page() }),
    of(LIVE.pens, { up: false }),
    of(LIVE.pensOf, { pens: { [student]: 'down' } }),
    of(LIVE.ways, { ways: { [page()]: 'own' } }),
    of(LIVE.tables, { tables: [{ id: '1', students: [student] }] }),
    of(LIVE.showCopy, { copy: { page: page(), space: `student:${student}`, named: true } }),
    of(LIVE.rules, { set: RULES_AT_FIRST }),
    of(LIVE.scene, { set: { roam: true }, moving: false }),
    of(LIVE.ideas, { set: { [page()]: IDEAS_AT_FIRST } }),
    of(LIVE.ask, { poll }),
    of(LIVE.poll, { poll: poll.id, open: false, away: true }),
    of(LIVE.unsay, { id: 'x', removed: true }),
    of(LIVE.enter, {}, false),
    of(LIVE.looks, { away: true }, false),
    of(LIVE.answer, { poll: poll.id, value: 0 }, false),
    of(LIVE.hand, { up: true }, false),
    of(LIVE.react, { which: 'clear' }, false),
    of(LIVE.vote, { page: page(), note: 'n', up: true }, false),
    of(LIVE.chat, {}, false),
    of(LIVE.say, { id: randomUUID(), words: 'Hello' }, false),
    of(LIVE.notes, {}, false),
    of(LIVE.noteSteps, { version: 0, steps: [{ stepType: 'replace', from: 0, to: 0 }], client: 'c' }, false),
    of(LIVE.open, { log: at.sitting }, false),
    of(LIVE.read, { log: at.sitting, page: page(), read: 1 }, false),
    of(LIVE.submit, { log: at.sitting, operation: { id: randomUUID(), changes: [] } }, false),
  ];
};

/** The class goes on: the others write and see what is written. */
async function goesOn(): Promise<void> {
  const mark = strokeBy(wren.id, page());
  expect((await wren.live.submit(at.sitting, [{ do: 'add', mark }])).error).toBeUndefined();
  await expect
    .poll(async () => (await at.live.snapshot(at.sitting)).marks.map(({ id }) => id))
    .toContain(mark.id);
}

describe('a hostile student’s client', () => {
  it('does nothing that is the teacher’s, whatever it says', async () => {
    const before = await at.live.enter(at.sitting);
    for (const { event, message, teachers } of messages()) {
      if (!teachers) continue;
      for (const more of [{}, { role: 'teacher' }, { author: at.me }, { token: 'x' }]) {
        const { error } = await mallory.live.ask(event, { sitting: at.sitting.id, ...message, ...more });
        expect(error?.code, event).toBe('not-allowed');
      }
    }
    const after = await at.live.enter(at.sitting);
    expect({ ...after, now: 0, version: 0 }).toEqual({ ...before, now: 0, version: 0 });
    expect(after.scene).toEqual(EMPTY_SCENE);
    await goesOn();
  });

  it('reaches no class but its own', async () => {
    for (const { event, message } of messages()) {
      const isLog = 'log' in message;
      const there = isLog
        ? { ...message, log: elsewhere.sitting }
        : { sitting: elsewhere.sitting.id, ...message };
      const reply = await mallory.live.ask<object>(event, there);
      // Looking away from a class that is not one's own is not worth a sentence.
      if (event === LIVE.looks) expect(reply).toEqual({});
      else expect(reply.error, event).toBeDefined();
    }
    const state = await elsewhere.live.enter(elsewhere.sitting);
    expect(state).toMatchObject({ people: [], hands: [], poll: null, ideas: {}, ways: {}, tables: [] });
  });

  it('writes in nobody else’s name or copy, and takes nobody’s marks', async () => {
    const own = strokeBy(wren.id, page());
    await wren.live.submit(at.sitting, [{ do: 'add', mark: own }]);
    const forged: Partial<Mark>[] = [
      { author: wren.id },
      { author: at.me },
      { author: 'server' },
      { space: `student:${wren.id}` },
      { space: 'table:1' },
      { space: 'table:seat-1' },
      { locked: true },
    ];
    for (const set of forged) {
      const mark = { ...strokeBy(mallory.id, page()), ...set };
      expect(
        (await mallory.live.submit(at.sitting, [{ do: 'add', mark }])).error,
        JSON.stringify(set),
      ).toBeDefined();
    }
    for (const change of [
      { do: 'remove', mark: own.id },
      { do: 'patch', mark: own.id, set: { group: 'g' } },
      { do: 'patch', mark: own.id, set: { locked: true } },
      { do: 'removePage', page: page() },
    ])
      expect((await mallory.live.submit(at.sitting, [change])).error, change.do).toBeDefined();
    const { marks } = await at.live.snapshot(at.sitting);
    expect(marks.map(({ id }) => id)).toEqual([own.id]);
  });

  it('says nonsense of every sort and is answered in a sentence; the class goes on', async () => {
    const strange = fc.oneof(
      fc.jsonValue({ maxDepth: 3 }),
      fc.constantFrom<unknown>('__proto__', 'constructor', '', -1, 1e308, 'x'.repeat(5000)),
      fc.constant(JSON.parse('{"__proto__":{"role":"teacher"},"constructor":{"prototype":{}}}') as unknown),
    );
    const known = messages();
    const nonsense = fc.record({
      which: fc.nat(known.length - 1),
      fields: fc.dictionary(
        fc.constantFrom(...new Set(known.flatMap(({ message }) => Object.keys(message)))),
        strange,
        { maxKeys: 3 },
      ),
      extra: fc.dictionary(fc.constantFrom('__proto__', 'constructor', 'toString', 'more'), strange, {
        maxKeys: 2,
      }),
    });
    let asked = 0;
    await fc.assert(
      fc.asyncProperty(nonsense, async ({ which, fields, extra }) => {
        const { event, message } = known[which]!;
        asked += 1;
        // A new connection now and then, so that it is not only refused for being too fast.
        if (asked % 150 === 0) {
          mallory.live.close();
          mallory = await joiner(server, at)(`Mallory ${asked}`);
        }
        const reply = await mallory.live.ask<object>(event, {
          sitting: at.sitting.id,
          ...message,
          ...fields,
          ...extra,
        });
        // That would be an error that nobody has thought of.
        expect(reply.error?.code, `${event} ${JSON.stringify(fields)}`).not.toBe('sent-again');
      }),
      { numRuns: 400 },
    );
    expect(({} as { role?: string }).role).toBeUndefined();
    await goesOn();
  });

  it('is cut off by a message of 10 MB, and slowed down by ten thousand; the class goes on', async () => {
    const gone = new Promise<void>((resolve) => mallory.live.socket.on('disconnect', () => resolve()));
    mallory.live.socket.emit('say', { sitting: at.sitting.id, id: 'x', words: 'x'.repeat(10_000_000) });
    await gone;
    const again = await joiner(server, at)('Mallory again');
    const replies: { error?: { code: string } }[] = [];
    for (let i = 0; i < 10_000; i += 1)
      again.live.socket.emit(
        ['hand', 'react', 'vote', 'say', 'looks'][i % 5]!,
        {
          sitting: at.sitting.id,
          up: i % 2 === 0,
          which: 'clear',
          page: page(),
          id: `m${i}`,
          words: 'x',
          away: i % 2 === 0,
        },
        (reply: { error?: { code: string } }) => replies.push(reply),
      );
    await goesOn();
    await expect.poll(() => replies.length, { timeout: 60_000 }).toBe(10_000);
    expect(replies.filter(({ error }) => error?.code === 'too-fast').length).toBeGreaterThan(5000);
    await goesOn();
    again.live.close();
  });

  it('gets in by nobody’s token but one that the server has given', async () => {
    for (const token of ['', 'x', 'null', `${'a'.repeat(20)}.${'b'.repeat(20)}.c`])
      await expect(LiveClient.connect(server.url, { token })).rejects.toThrow();
  });
});
