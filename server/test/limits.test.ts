import type { DrawMessage, InkHead } from '@doodla/core';
import { INK_TICK_MS } from '@doodla/core';
import type { Request } from 'express';
import fc from 'fast-check';
import type { IncomingMessage } from 'node:http';
import type { Server } from 'socket.io';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Limiters } from '../src/processes/limiters.js';
import { AttemptLimit } from '../src/http/attemptLimit.js';
import { isOwnOrigin } from '../src/http/origin.js';
import { Problem } from '../src/http/problem.js';
import { visibleText } from '../src/http/visibleText.js';
import { InkRelay } from '../src/live/inkRelay.js';
import type { LiveSocket } from '../src/live/liveSocket.js';
import { SharedBudget } from '../src/live/sharedBudget.js';
import { SlowLane } from '../src/live/slowLane.js';
import { readSettings } from '../src/settings/settings.js';

beforeEach(() => vi.useFakeTimers());
afterEach(() => vi.useRealTimers());

describe('codes that are typed', () => {
  const from = (ip: string) => ({ ip }) as Request;
  const wrong = () => Promise.reject(new Problem(404, 'wrong-code', 'There is no class with this code.'));
  const right = () => Promise.resolve('in');

  async function typeWrongOnes(limit: AttemptLimit, ip: string, count: number): Promise<void> {
    for (let i = 0; i < count; i++)
      await expect(limit.guard(from(ip), wrong)).rejects.toMatchObject({ code: 'wrong-code' });
  }

  it('are slowed down after many wrong ones, and right ones still let in', async () => {
    const limit = new AttemptLimit(new Limiters(readSettings({})), 'codes');
    await typeWrongOnes(limit, '10.0.0.1', 100);
    let entered = '';
    const entering = limit.guard(from('10.0.0.1'), right).then((word) => (entered = word));
    await vi.advanceTimersByTimeAsync(900);
    expect(entered).toBe('');
    await vi.advanceTimersByTimeAsync(200);
    await entering;
    expect(entered).toBe('in');
  });

  it('are let through at once everywhere else', async () => {
    const limit = new AttemptLimit(new Limiters(readSettings({})), 'codes');
    await typeWrongOnes(limit, '10.0.0.1', 100);
    expect(await limit.guard(from('10.0.0.2'), right)).toBe('in');
  });

  it('are not counted where something else went wrong', async () => {
    const limit = new AttemptLimit(new Limiters(readSettings({})), 'codes');
    const full = () => Promise.reject(new Problem(409, 'full', 'The class is full.'));
    for (let i = 0; i < 150; i++)
      await expect(limit.guard(from('10.0.0.1'), full)).rejects.toMatchObject({ code: 'full' });
    expect(await limit.guard(from('10.0.0.1'), right)).toBe('in');
  });

  it('wait in a line that has an end, which clears again', async () => {
    const limit = new AttemptLimit(new Limiters(readSettings({})), 'codes');
    await typeWrongOnes(limit, '10.0.0.1', 100);
    const waiting = Array.from({ length: 40 }, () => limit.guard(from('10.0.0.1'), right));
    await vi.advanceTimersByTimeAsync(10);
    await expect(limit.guard(from('10.0.0.1'), right)).rejects.toMatchObject({ code: 'too-many-attempts' });
    await vi.advanceTimersByTimeAsync(1100);
    expect(await Promise.all(waiting)).toHaveLength(40);
    const next = limit.guard(from('10.0.0.1'), right);
    await vi.advanceTimersByTimeAsync(1100);
    expect(await next).toBe('in');
  });

  it('are forgotten after ten minutes', async () => {
    const limit = new AttemptLimit(new Limiters(readSettings({})), 'codes');
    await typeWrongOnes(limit, '10.0.0.1', 100);
    await vi.advanceTimersByTimeAsync(601_000);
    expect(await limit.guard(from('10.0.0.1'), right)).toBe('in');
  });
});

describe('what is written by all together', () => {
  it('is bounded for a class, without holding up the class next door', () => {
    const budget = new SharedBudget();
    const [busy, calm] = [{}, {}];
    for (let i = 0; i < 64; i++) expect(budget.take(busy, 'north', 1_000_000)).toBe(true);
    expect(budget.take(busy, 'north', 1_000_000)).toBe(false);
    expect(budget.take(calm, 'north', 1_000_000)).toBe(true);
  });

  it('is bounded for the school', () => {
    const budget = new SharedBudget();
    const taken = Array.from({ length: 10 }, () => ({})).map((log) => budget.take(log, 'north', 60_000_000));
    expect(taken.filter(Boolean)).toHaveLength(4);
    // What one school has used up is not another one's.
    expect(budget.take({}, 'south', 60_000_000)).toBe(true);
  });

  it('may go on after a while', () => {
    const budget = new SharedBudget();
    const log = {};
    while (budget.take(log, 'north', 1_000_000));
    vi.advanceTimersByTime(1000);
    expect(budget.take(log, 'north', 3_000_000)).toBe(true);
  });
});

describe('long work in pieces', () => {
  it('gives each piece a turn of the event loop, in the order of asking', async () => {
    vi.useRealTimers();
    const lane = new SlowLane();
    const done: string[] = [];
    const work = async (name: string) => {
      for (let i = 0; i < 3; i++) {
        await lane.turn();
        done.push(name);
      }
    };
    let others = 0;
    const count = () => {
      others += 1;
      if (done.length < 6) setImmediate(count);
    };
    setImmediate(count);
    await Promise.all([work('a'), work('b')]);
    expect(done).toEqual(['a', 'b', 'a', 'b', 'a', 'b']);
    expect(others).toBeGreaterThanOrEqual(5);
  });
});

describe('where a request comes from', () => {
  const settings = (env: Record<string, string> = {}) => readSettings(env);
  const asked = (headers: Record<string, string>) => ({ headers }) as unknown as IncomingMessage;
  const host = 'school.test:4600';

  // Browsers send these headers: RFC 6454 §7.3, Fetch Metadata §2.2.
  it.each([
    ['its own page', { host, origin: 'http://school.test:4600' }, true],
    ['its own page behind a proxy that ends HTTPS', { host, origin: 'https://school.test:4600' }, true],
    ['a program that is no browser', { host }, true],
    ['another site', { host, origin: 'https://evil.example' }, false],
    ['another port of the same machine', { host, origin: 'http://school.test:8080' }, false],
    ['a name that only begins alike', { host, origin: 'http://school.test.evil.example:4600' }, false],
    ['a sandboxed frame', { host, origin: 'null' }, false],
    ['nonsense', { host, origin: 'http://[' }, false],
    ['a form of another site without its origin', { host, 'sec-fetch-site': 'cross-site' }, false],
    [
      'a forged forwarding header',
      { host, origin: 'https://a.example', 'x-forwarded-host': 'a.example' },
      false,
    ],
  ])('%s', (_, headers, own) => {
    expect(isOwnOrigin(asked(headers), settings())).toBe(own);
  });

  it('is judged by the address that students type, where one is set', () => {
    const ours = asked({ host: '10.0.0.5:4600', origin: 'https://draw.school.test' });
    expect(isOwnOrigin(ours, settings())).toBe(false);
    expect(isOwnOrigin(ours, settings({ DOODLA_PUBLIC_URL: 'https://draw.school.test' }))).toBe(true);
  });

  it('is judged by the proxy’s word where a proxy is set', () => {
    const ours = asked({ host: 'inner', origin: 'https://outer.test', 'x-forwarded-host': 'outer.test' });
    expect(isOwnOrigin(ours, settings({ DOODLA_TRUST_PROXY: '1' }))).toBe(true);
  });
});

describe('names', () => {
  it('are the same when they are cleaned again, and have nothing that cannot be seen', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 60 }), (name) => {
        const seen = visibleText(name) as string;
        expect(visibleText(seen)).toBe(seen);
        expect(seen).not.toMatch(/[\p{Bidi_Control}\p{Default_Ignorable_Code_Point}\p{Cc}]/u);
        expect(seen).not.toMatch(/^ | $| {2}/);
      }),
    );
  });

  it('of any script stay as they are', () => {
    for (const name of ['Zoë', 'Łucja', '小林', 'नेहा', 'محمد', 'Nguyễn Thị', 'Ó Briain'])
      expect(visibleText(name)).toBe(name.normalize('NFC'));
  });

  it('are text, and nothing else is turned into text', () => {
    for (const value of [undefined, null, 5, {}, ['a']]) expect(visibleText(value)).toBe(value);
  });
});

describe('wet ink on its way', () => {
  const LOG = { kind: 'sitting', id: 'log' } as const;
  const head: InkHead = {
    style: { nature: 'pen', colour: '#1c2321', width: 4, opacity: 1 },
    space: 'class',
    pressure: false,
  };

  const part = (stroke: string, from = 0, first?: InkHead): DrawMessage => ({
    log: LOG,
    page: 'page',
    stroke,
    from,
    points: 'AA==',
    ...(first && { head: first }),
  });

  /** A server that notes what goes to its room and to single sockets. */
  function aServer() {
    const sent: { to: string; except: string; message: { parts: { stroke: string; author: string }[] } }[] =
      [];
    const sockets = new Map<string, LiveSocket>();
    const rooms = new Map<string, Set<string>>();
    const join = (room: string, id: string) => rooms.set(room, (rooms.get(room) ?? new Set()).add(id));
    const add = (id: string, actor: { role: string; id: string }) => {
      const own = new Set<string>();
      const socket = {
        id,
        rooms: own,
        conn: { writeBuffer: [] as unknown[] },
        data: { open: new Map([['log', { actor: { ...actor, tables: [] } }]]) },
        join: (room: string) => own.add(room),
        leave: (room: string) => own.delete(room),
        emit: (_: string, message: never) => sent.push({ to: id, except: '', message }),
      };
      sockets.set(id, socket as unknown as LiveSocket);
      join('log log', id);
      return socket;
    };
    const server = {
      local: {
        to: (to: string) => ({
          except: (except: string) => ({
            emit: (_: string, message: never) => sent.push({ to, except, message }),
          }),
        }),
      },
      sockets: { sockets, adapter: { rooms } },
    } as unknown as Server;
    return { server, sent, add };
  }

  it('goes out gathered: one message for all that all pens drew on a page since the last', () => {
    const { server, sent, add } = aServer();
    const relay = new InkRelay(server);
    const pens = ['a', 'b', 'c'].map((id) => add(id, { role: 'student', id }) as unknown as LiveSocket);
    for (let round = 0; round < 4; round++)
      pens.forEach((pen, i) => {
        const message = part(`stroke-${i}`, round, round === 0 ? head : undefined);
        relay.pass(message, pen.id, relay.headOf(pen, message)!);
      });
    expect(sent).toEqual([]);
    vi.advanceTimersByTime(INK_TICK_MS);
    expect(sent).toHaveLength(1);
    expect(sent[0]!.to).toBe('log log');
    expect(sent[0]!.message.parts).toHaveLength(12);
    expect(new Set(sent[0]!.message.parts.map(({ author }) => author))).toEqual(new Set(['a', 'b', 'c']));
    vi.advanceTimersByTime(10 * INK_TICK_MS);
    expect(sent).toHaveLength(1);
  });

  it('of a student’s own copy goes to those alone who may see it', () => {
    const { server, sent, add } = aServer();
    const relay = new InkRelay(server);
    const wren = add('wren', { role: 'student', id: 'wren' }) as unknown as LiveSocket;
    add('nash', { role: 'student', id: 'nash' });
    add('desk', { role: 'teacher', id: 'teacher' });
    const own = { ...head, space: 'student:wren' as const };
    const message = part('stroke', 0, own);
    relay.pass(message, 'wren', relay.headOf(wren, message)!);
    vi.advanceTimersByTime(INK_TICK_MS);
    expect(sent.map(({ to }) => to).sort()).toEqual(['desk', 'wren']);
  });

  it('waits for a receiver that has fallen behind, until it has caught up', () => {
    const { server, add } = aServer();
    const relay = new InkRelay(server);
    const pen = add('pen', { role: 'student', id: 'pen' }) as unknown as LiveSocket;
    const slow = add('slow', { role: 'student', id: 'slow' });
    const draw = () => {
      const message = part('stroke', 0, head);
      relay.pass(message, 'pen', relay.headOf(pen, message)!);
      vi.advanceTimersByTime(600);
    };
    slow.conn.writeBuffer = Array.from({ length: 61 });
    draw();
    draw();
    expect([...slow.rooms]).toEqual(['slow']);
    expect(pen.rooms.size).toBe(0);
    slow.conn.writeBuffer = Array.from({ length: 30 });
    draw();
    expect([...slow.rooms]).toEqual(['slow']);
    slow.conn.writeBuffer = [];
    draw();
    expect([...slow.rooms]).toEqual([]);
  });

  it('belongs to a stroke whose head is known, for twenty strokes of a hand at most', () => {
    const { server, add } = aServer();
    const relay = new InkRelay(server);
    const pen = add('pen', { role: 'student', id: 'pen' }) as unknown as LiveSocket;
    expect(relay.headOf(pen, part('unknown'))).toBeUndefined();
    for (let i = 0; i < 21; i++) expect(relay.headOf(pen, part(`s${i}`, 0, head))).toBe(head);
    expect(relay.headOf(pen, part('s0', 1))).toBeUndefined();
    expect(relay.headOf(pen, part('s1', 1))).toBe(head);
    expect(relay.headOf(pen, part('s20', 1))).toBe(head);
  });
});
