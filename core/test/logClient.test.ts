import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { PassingCode } from '../src/index.js';
import { FREE, LIVE } from '../src/index.js';
import { LiveError, LogClient, MemoryOutbox } from '../src/client/index.js';
import { FakeLine } from './helpers/fakeLine.js';
import { aPage, aStroke } from './helpers/marks.js';

const PAGE = aPage({ id: 'p1' });
const actor = { id: 'ada', role: 'teacher', tables: [] };

let line: FakeLine;
let outbox: MemoryOutbox;
let client: LogClient;
let stored: { seq: number; operation: { id: string } }[];

function open(): LogClient {
  return new LogClient({ kind: 'lesson', id: 'l1' }, line, {
    situation: () => FREE,
    outboxFor: () => outbox,
  });
}

const submits = () =>
  line.requests
    .filter(({ event }) => event === LIVE.submit)
    .map(({ message }) => (message['operation'] as { id: string }).id);
const add = () => client.perform([{ do: 'add', mark: aStroke({ page: 'p1' }) }])!;

/** Stores what is submitted, gives it a number and tells of it, as the server does. */
function store(message: object): { seq: number } {
  const { operation } = message as { operation: { id: string } };
  const known = stored.find((one) => one.operation.id === operation.id);
  if (known) return { seq: known.seq };
  const logged = { seq: stored.length + 1, author: 'ada', at: 0, operation };
  stored.push(logged);
  line.tell(LIVE.operations, { log: 'l1', logged: [logged] });
  return { seq: logged.seq };
}

beforeEach(async () => {
  vi.useFakeTimers();
  line = new FakeLine();
  stored = [];
  line.answer = (event, message) => {
    if (event === LIVE.submit) return store(message);
    const { since = 0 } = message as { since?: number };
    const operations = stored.filter(({ seq }) => seq > since);
    const whole = { pages: [PAGE], written: [] };
    return { actor, seq: since, ...(since === 0 && whole), operations, undoable: [] };
  };
  outbox = new MemoryOutbox();
  client = open();
  await vi.waitUntil(() => client.status.get().ready);
});

afterEach(() => {
  client.close();
  vi.useRealTimers();
});

describe('a log', () => {
  it('keeps what is done without a connection, and sends it in that order when the line is back', async () => {
    line.isOnline = false;
    const ids = [add(), add(), add()];
    expect(client.status.get().waiting).toBe(3);
    expect(submits()).toEqual([]);
    line.comeBack();
    await vi.waitUntil(() => client.status.get().waiting === 0);
    expect(submits()).toEqual(ids);
    expect(await outbox.load()).toEqual([]);
  });

  it('keeps what the server cannot store just now, says so once, and sends it when it can', async () => {
    const told: string[] = [];
    client.refused.subscribe((sentence) => told.push(sentence));
    for (const code of ['storage-full', 'sent-again', 'too-fast'] satisfies PassingCode[]) {
      line.answers[LIVE.submit] = new LiveError(code, `Why: ${code}`);
      const before = submits().length;
      const ids = [add(), add()];
      await vi.advanceTimersByTimeAsync(2500);
      expect(submits().length).toBeGreaterThanOrEqual(before + 3);
      expect(client.status.get().waiting).toBe(2);
      expect((await outbox.load()).map(({ operation }) => operation.id)).toEqual(ids);
      delete line.answers[LIVE.submit];
      await vi.advanceTimersByTimeAsync(1500);
      expect(client.status.get().waiting).toBe(0);
      expect(submits().slice(-2)).toEqual(ids);
    }
    expect(told).toEqual(['Why: storage-full', 'Why: sent-again']);
    expect(client.state.marks.size).toBe(6);
  });

  it('sends what another run of the program has left in the outbox', async () => {
    line.isOnline = false;
    const id = add();
    client.close();
    line.isOnline = true;
    client = open();
    await vi.waitUntil(() => client.status.get().ready && client.status.get().waiting === 0);
    expect(submits()).toEqual([id]);
    expect(client.state.marks.size).toBe(1);
  });

  it('asks a server that has not stored what it says it has only now and then', async () => {
    line.answers[LIVE.submit] = { seq: 7 };
    add();
    await vi.advanceTimersByTimeAsync(100);
    const asked = submits().length;
    expect(asked).toBeGreaterThan(0);
    expect(asked).toBeLessThan(5);
    expect(client.status.get().waiting).toBe(1);
  });

  it('takes back what the server refuses, and says why', async () => {
    const said: string[] = [];
    const givenUp: string[] = [];
    client.refused.subscribe((message) => said.push(message));
    client.givenUp.subscribe(({ id }) => givenUp.push(id));
    line.answers[LIVE.submit] = new LiveError('not-yours', 'This is not yours.');
    const id = add();
    expect(client.state.marks.size).toBe(1);
    await vi.waitUntil(() => client.status.get().waiting === 0);
    expect(client.state.marks.size).toBe(0);
    expect([givenUp, said]).toEqual([[id], ['This is not yours.']]);
  });

  it('undoes and does again what was done last on the page that is looked at', async () => {
    client.lookAt('p1');
    add();
    await vi.waitUntil(() => client.status.get().waiting === 0);
    expect(client.status.get()).toMatchObject({ canUndo: true, canRedo: false });
    client.undo();
    expect(client.state.marks.size).toBe(0);
    await vi.waitUntil(() => client.status.get().waiting === 0);
    expect(client.status.get()).toMatchObject({ canUndo: false, canRedo: true });
    client.redo();
    expect(client.state.marks.size).toBe(1);
  });

  it('asks for all again where other marks are to be seen, once, and keeps what waits', async () => {
    const opens = () =>
      line.requests.filter(({ event }) => event === LIVE.open).map(({ message }) => message);
    add();
    await vi.runAllTimersAsync();
    line.answer = ((before) => (event: string, message: object) =>
      event === LIVE.submit ? new LiveError('unreachable', '') : before(event, message))(line.answer);
    add();
    await vi.runAllTimersAsync();
    const before = opens().length;
    client.reload();
    await vi.runAllTimersAsync();
    expect(opens().slice(before)).toEqual([{ log: { kind: 'lesson', id: 'l1' } }]);
    expect(client.pending).toHaveLength(1);
    line.comeBack();
    await vi.runAllTimersAsync();
    expect(opens().at(-1)).toHaveProperty('since');
  });
});
