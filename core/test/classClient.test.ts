import type { ClassState, Focus, Scene } from '../src/index.js';
import { EMPTY_SCENE } from '../src/index.js';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { ClassClient, LiveError } from '../src/client/index.js';
import { FakeLine } from './helpers/fakeLine.js';

const state = (set: Partial<ClassState> = {}): ClassState => ({
  sitting: 's1',
  lesson: 'l1',
  title: 'Today',
  page: 'p1',
  pensUp: false,
  ended: false,
  locked: false,
  people: [],
  asks: [],
  screen: null,
  presenters: [],
  scene: EMPTY_SCENE,
  devices: [],
  now: Date.now(),
  ...set,
});
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

beforeEach(() => {
  vi.useFakeTimers();
  line = new FakeLine();
  line.answers = { enter: state() };
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
    line.tell('class', state({ scene: { ...EMPTY_SCENE, focus: cover(1), uncovered: ['m'] } }));
    expect(client.scene.get()).toMatchObject({ focus: cover(7), uncovered: ['m'] } satisfies Partial<Scene>);
    line.tell('scene', { sitting: 's1', set: { focus: cover(2) }, moving: true });
    expect(client.scene.get().focus?.x).toBe(7);
    client.setScene({ focus: null });
    line.tell('class', state({ scene: { ...EMPTY_SCENE, focus: cover(1) } }));
    await vi.runAllTimersAsync();
    line.tell('class', state());
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
    line.tell('class', state({ sitting: 's2', page: 'elsewhere' }));
    expect(client.scene.get().focus).toBeNull();
    expect(client.state.get()?.page).toBe('p1');
  });
});

describe('the server’s clock', () => {
  it('is known from what it tells, whatever this device’s clock says', async () => {
    await vi.runAllTimersAsync();
    line.tell('class', state({ now: Date.now() + 90_000 }));
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
