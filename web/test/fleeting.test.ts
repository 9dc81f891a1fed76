import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { LiveInk } from '../src/live/liveInk';
import { Pointers } from '../src/live/pointers';
import { FakeConnection } from './helpers/fakeConnection';

let line: FakeConnection;

beforeEach(() => {
  vi.useFakeTimers();
  line = new FakeConnection();
});
afterEach(() => vi.useRealTimers());

describe('pointing', () => {
  const dot = (set: object) => ({
    sitting: 's1',
    page: 'p1',
    x: 1,
    y: 2,
    gone: false,
    author: 'wren',
    ...set,
  });

  it('is seen on its page with a short trail, and is gone when it stops', () => {
    const pointers = new Pointers('s1', line.asConnection, () => 'me');
    line.tell('pointed', dot({}));
    vi.advanceTimersByTime(50);
    line.tell('pointed', dot({ x: 9 }));
    const shown = pointers.onPage('p1').map(([author, { trail }]) => [author, trail.map(({ x }) => x)]);
    expect(shown).toEqual([['wren', [1, 9]]]);
    expect(pointers.onPage('p2')).toEqual([]);
    line.tell('pointed', dot({ gone: true }));
    expect(pointers.onPage('p1')).toEqual([]);
  });

  it('of somebody of whom nothing is heard any more is not left standing', () => {
    const pointers = new Pointers('s1', line.asConnection, () => 'me');
    line.tell('pointed', dot({}));
    vi.advanceTimersByTime(5000);
    expect(pointers.onPage('p1')).toEqual([]);
  });

  it('is told at most forty times a second, and its end always', () => {
    const pointers = new Pointers('s1', line.asConnection, () => 'me');
    for (let x = 0; x < 200; x++) {
      pointers.point('p1', x, 0);
      vi.advanceTimersByTime(5);
    }
    expect(line.sent.length).toBeLessThanOrEqual(40);
    expect(pointers.onPage('p1')).toHaveLength(1);
    pointers.rest('p1');
    expect(line.sent.at(-1)!.message).toMatchObject({ gone: true });
    expect(pointers.onPage('p1')).toEqual([]);
  });
});

describe('a wisp', () => {
  const style = { nature: 'marker', colour: '#d55e00', width: 8, opacity: 0.9 } as const;
  const drawn = (set: object) => ({
    log: { kind: 'sitting', id: 's1' },
    page: 'p1',
    space: 'class',
    author: 'ada',
    stroke: 'w1',
    style,
    pressure: false,
    from: 0,
    points: [0, 0, 0.5, 0, 9, 9, 0.5, 10],
    ...set,
  });

  it('is seen whole, fades in its last moments and is gone after its time', () => {
    const ink = new LiveInk({ kind: 'sitting', id: 's1' }, line.asConnection);
    line.tell('drawn', drawn({ fade: 3000 }));
    expect(ink.onPage('p1')[0]!.left).toBe(1);
    expect(ink.isFading('p1')).toBe(true);
    vi.advanceTimersByTime(2650);
    const { left } = ink.onPage('p1')[0]!;
    expect(left).toBeGreaterThan(0.4);
    expect(left).toBeLessThan(0.6);
    vi.advanceTimersByTime(400);
    expect(ink.onPage('p1')).toEqual([]);
    expect(ink.isFading('p1')).toBe(false);
  });

  it('goes by messages that arrive, with its last points; other wet ink need not', () => {
    const ink = new LiveInk({ kind: 'sitting', id: 's1' }, line.asConnection);
    const reliable = vi.spyOn(line, 'send');
    vi.advanceTimersByTime(100);
    const grow = ink.broadcast('w2', 'p1', 'class', style, false, 2000);
    grow([0, 0, 0.5, 0]);
    grow([0, 0, 0.5, 0, 1, 1, 0.5, 5], true);
    expect(reliable.mock.calls.map(([, message]) => message)).toMatchObject([
      { from: 0, points: [0, 0, 0.5, 0], fade: 2000 },
      { from: 1, points: [1, 1, 0.5, 5], fade: 2000 },
    ]);
  });

  it('that is not one stays until it becomes a mark', () => {
    const ink = new LiveInk({ kind: 'sitting', id: 's1' }, line.asConnection);
    line.tell('drawn', drawn({ stroke: 'm1' }));
    vi.advanceTimersByTime(4000);
    expect(ink.onPage('p1')[0]!.left).toBe(1);
    ink.finish('m1');
    line.tell('drawn', drawn({ stroke: 'm1', from: 2 }));
    expect(ink.onPage('p1')).toEqual([]);
  });
});
