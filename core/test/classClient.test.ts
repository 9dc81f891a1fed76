import type { ClassState, Focus, Scene } from '../src/index.js';
import { classChange, EMPTY_SCENE, withClassChange } from '../src/index.js';
import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { ClassClient, isPenUp, LiveError } from '../src/client/index.js';
import { aClassState, aPerson } from './helpers/classes.js';
import { FakeLine } from './helpers/fakeLine.js';

const cover = (x: number): Focus => ({
  kind: 'cover',
  page: 'p1',
  shared: true,
  x,
  y: 0,
  width: 100,
  height: 80,
});
const scenes = (line: FakeLine) => line.requests.filter(({ event }) => event === 'scene');

let line: FakeLine;
let client: ClassClient;
/** How things stand at the server. */
let server: ClassState;

/** Something changes at the server, which tells of it. */
function tell(set: Partial<ClassState>): void {
  const after = aClassState({ ...set, version: server.version + 1 });
  const change = classChange(server, after)!;
  line.tell('class', { ...change, sitting: after.sitting });
  server = after;
}

beforeEach(() => {
  vi.useFakeTimers();
  line = new FakeLine();
  server = aClassState();
  line.answers = { enter: server };
  client = new ClassClient('s1', line);
});
afterEach(() => vi.useRealTimers());

describe('the scene of a class', () => {
  it('counts at once here, and the last of a movement is what is kept', async () => {
    await vi.runAllTimersAsync();
    for (const x of [1, 2, 3]) client.setScene({ focus: cover(x) }, true);
    expect(client.scene.get().focus?.x).toBe(3);
    expect(scenes(line)).toEqual([]);
    client.setScene({ focus: cover(4) });
    await vi.runAllTimersAsync();
    expect(scenes(line).map(({ message }) => message)).toEqual([
      { sitting: 's1', set: { focus: cover(4) }, moving: false },
    ]);
  });

  it('tells others of a movement at most thirty times a second', async () => {
    await vi.runAllTimersAsync();
    for (let x = 0; x < 100; x++) {
      client.setScene({ focus: cover(x) }, true);
      vi.advanceTimersByTime(10);
    }
    const told = line.sent.filter(({ event }) => event === 'scene');
    expect(told.length).toBeLessThanOrEqual(30);
    expect(told.length).toBeGreaterThan(20);
  });

  it('is not pulled out of the hand that moves it by what the server tells meanwhile', async () => {
    await vi.runAllTimersAsync();
    client.setScene({ focus: cover(7) }, true);
    tell({ scene: { ...EMPTY_SCENE, focus: cover(1), uncovered: ['m'] } });
    expect(client.scene.get()).toMatchObject({ focus: cover(7), uncovered: ['m'] } satisfies Partial<Scene>);
    line.tell('scene', { sitting: 's1', set: { focus: cover(2) }, moving: true });
    expect(client.scene.get().focus?.x).toBe(7);
    client.setScene({ focus: null });
    tell({ scene: { ...EMPTY_SCENE, focus: cover(1) } });
    await vi.runAllTimersAsync();
    tell({});
    expect(client.scene.get().focus).toBeNull();
  });

  it('changed without a connection is told on return, everything that was changed', async () => {
    await vi.runAllTimersAsync();
    line.isOnline = false;
    client.setScene({ focus: cover(5) });
    client.setScene({ uncovered: ['m1'] });
    client.turn('p2');
    await vi.runAllTimersAsync();
    expect(client.scene.get()).toMatchObject({ focus: cover(5), uncovered: ['m1'] });
    expect(scenes(line)).toEqual([]);
    line.comeBack();
    await vi.runAllTimersAsync();
    expect(scenes(line)[0]!.message.set).toEqual({ focus: cover(5), uncovered: ['m1'] });
    expect(line.requests.some(({ event, message }) => event === 'turn' && message.page === 'p2')).toBe(true);
  });

  it('of another class is none of ours', async () => {
    await vi.runAllTimersAsync();
    line.tell('scene', { sitting: 's2', set: { focus: cover(9) }, moving: true });
    tell({ sitting: 's2', page: 'elsewhere' });
    expect(client.scene.get().focus).toBeNull();
    expect(client.state.get()?.page).toBe('p1');
  });
});

describe('the server’s clock', () => {
  it('is known from what it tells, whatever this device’s clock says', async () => {
    await vi.runAllTimersAsync();
    tell({ pensUp: true, now: Date.now() + 90_000 });
    expect(client.now - Date.now()).toBe(90_000);
    vi.advanceTimersByTime(2000);
    expect(client.now - Date.now()).toBe(90_000);
  });

  it('turns again to a page that the server does not know yet, and lets go of one that it never will', async () => {
    const unknown = () => Promise.reject(new LiveError('no-such-page', 'That page is no longer there.'));
    const asked = vi.spyOn(line, 'request').mockImplementation(unknown);
    const said: string[] = [];
    client.refused.subscribe((message) => said.push(message));
    client.turn('new');
    await vi.advanceTimersByTimeAsync(900);
    expect(asked.mock.calls.length).toBeGreaterThan(1);
    expect(said).toEqual([]);
    asked.mockRestore();
    await vi.advanceTimersByTimeAsync(900);
    expect(line.requests.at(-1)).toMatchObject({ event: 'turn', message: { page: 'new' } });
    vi.spyOn(line, 'request').mockImplementation(unknown);
    client.turn('never');
    await vi.advanceTimersByTimeAsync(9000);
    expect(said).toEqual(['That page is no longer there.']);
  });
});

describe('the state of a class', () => {
  const person = (id: string, here = true) => aPerson({ id, name: id, here });
  const people = fc.uniqueArray(
    fc
      .record({ id: fc.constantFrom('a', 'b', 'c', 'd'), here: fc.boolean() })
      .map(({ id, here }) => person(id, here)),
    { selector: ({ id }) => id },
  );
  const anyState = fc
    .record({
      people,
      page: fc.constantFrom('p1', 'p2'),
      pensUp: fc.boolean(),
      presenters: fc.subarray(['a', 'b']),
    })
    .map((set) => aClassState({ ...set, now: 5 }));

  it('is known after each change as the server has it, whatever changes', () => {
    fc.assert(
      fc.property(anyState, anyState, (before, after) => {
        const change = classChange(before, { ...after, version: 2 });
        const told = change ? withClassChange(before, change) : before;
        expect(told).toEqual({ ...after, version: told.version });
      }),
    );
  });

  it('is told by the one who came, not by all who are here', () => {
    const many = Array.from({ length: 60 }, (_, i) => person(`s${i}`));
    const before = aClassState({ people: many });
    const after = aClassState({ people: [...many.slice(0, 59), person('s59', false)], version: 2 });
    expect(classChange(before, after)).toEqual({
      sitting: 's1',
      version: 2,
      now: after.now,
      set: {},
      people: { put: [person('s59', false)], gone: [] },
    });
  });

  it('is asked for again where a change was not heard', async () => {
    await vi.runAllTimersAsync();
    const entered = () => line.requests.filter(({ event }) => event === 'enter').length;
    expect(entered()).toBe(1);
    server = aClassState({ page: 'p2', version: 2 });
    line.answers = { enter: aClassState({ page: 'p3', people: [person('a')], version: 3 }) };
    tell({ page: 'p3', people: [person('a')] });
    await vi.runAllTimersAsync();
    expect(entered()).toBe(2);
    expect(client.state.get()).toMatchObject({ page: 'p3', people: [{ id: 'a' }] });
  });

  it('counts anew with a server that was started again', async () => {
    await vi.runAllTimersAsync();
    for (const page of ['p2', 'p3', 'p4']) tell({ page });
    line.isOnline = false;
    server = aClassState({ page: 'p5', version: 1 });
    line.answers = { enter: server };
    line.comeBack();
    await vi.runAllTimersAsync();
    expect(client.state.get()?.page).toBe('p5');
    tell({ page: 'p6' });
    expect(client.state.get()?.page).toBe('p6');
  });
});

describe('pens and rules', () => {
  const sent = (event: string) =>
    line.requests.filter((one) => one.event === event).map(({ message }) => message);
  const pens = () => client.state.get()!.people.map(({ id, pen }) => [id, pen]);

  beforeEach(async () => {
    server = aClassState({ pensUp: true, people: [aPerson(), aPerson({ id: 'tove' })] });
    line.answers = { enter: server };
    client = new ClassClient('s1', line);
    await vi.runAllTimersAsync();
  });

  it('of one student count at once, until all pens are said anew', async () => {
    client.setPensOf(['wren'], false);
    expect(pens()).toEqual([
      ['wren', 'down'],
      ['tove', null],
    ]);
    expect([client.penUpOf('wren'), client.penUpOf('tove')]).toEqual([false, true]);
    client.setPens(true);
    expect([client.penUpOf('wren'), client.penUpOf('tove')]).toEqual([true, true]);
    await vi.runAllTimersAsync();
    expect(sent('pens')).toEqual([{ sitting: 's1', up: true }]);
  });

  it('changed without a connection are told on return, pens of all before those of one', async () => {
    line.isOnline = false;
    client.setPens(false);
    client.setPensOf(['wren'], true);
    client.setRules({ freedom: 'ink' });
    client.setRules({ handout: true });
    await vi.runAllTimersAsync();
    line.requests.length = 0;
    line.comeBack();
    await vi.runAllTimersAsync();
    const told = line.requests.map(({ event }) => event).filter((event) => event !== 'enter');
    expect(told).toEqual(['pens', 'pensOf', 'rules']);
    expect(sent('rules')).toEqual([{ sitting: 's1', set: { freedom: 'ink', handout: true } }]);
    expect(sent('pensOf')).toEqual([{ sitting: 's1', pens: { wren: 'up' } }]);
  });

  it('are known where there is no class, too', () => {
    expect(isPenUp(undefined, 'wren')).toBe(true);
    expect(isPenUp(aClassState({ pensUp: false }), 'stranger')).toBe(false);
  });
});
