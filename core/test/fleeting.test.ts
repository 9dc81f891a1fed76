import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { packPoints } from '../src/index.js';
import { LiveInk, Pointers } from '../src/client/index.js';
import { FakeLine } from './helpers/fakeLine.js';

let line: FakeLine;

beforeEach(() => {
  vi.useFakeTimers();
  line = new FakeLine();
});
afterEach(() => vi.useRealTimers());

const style = { nature: 'marker', colour: '#d55e00', width: 8, opacity: 0.9 } as const;

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
    const pointers = new Pointers('s1', line, () => 'me');
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
    const pointers = new Pointers('s1', line, () => 'me');
    line.tell('pointed', dot({}));
    vi.advanceTimersByTime(5000);
    expect(pointers.onPage('p1')).toEqual([]);
  });

  it('is seen by who points where there is no class, and told nobody', () => {
    const pointers = new Pointers(undefined, line, () => 'me');
    pointers.point('p1', 3, 4);
    expect(pointers.onPage('p1').map(([author]) => author)).toEqual(['me']);
    const ink = new LiveInk(undefined, line);
    ink.broadcast('s', 'p1', { space: 'class', style, pressure: false, fade: 900 })([1, 1, 0.5, 0]);
    ink.leave({
      id: 's',
      page: 'p1',
      author: '',
      space: 'class',
      style,
      pressure: false,
      points: [1, 1, 0.5, 0],
      fade: 900,
    });
    expect(ink.onPage('p1', 'class')).toHaveLength(1);
    pointers.rest('p1');
    expect(pointers.onPage('p1')).toEqual([]);
    expect(line.sent).toEqual([]);
  });

  it('is told at most forty times a second, and its end always', () => {
    const pointers = new Pointers('s1', line, () => 'me');
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
  const drawn = ({ fade, ...set }: { fade?: number; stroke?: string; from?: number }) => {
    const head = { space: 'class', style, pressure: false, ...(fade !== undefined && { fade }) };
    const points = packPoints([0, 0, 0.5, 0, 9, 9, 0.5, 10]);
    const part = { author: 'ada', stroke: 'w1', head, from: 0, points, ...set };
    return { log: 's1', page: 'p1', parts: [part] };
  };

  it('is seen whole, fades in its last moments and is gone after its time', () => {
    const ink = new LiveInk({ kind: 'sitting', id: 's1' }, line);
    line.tell('drawn', drawn({ fade: 3000 }));
    expect(ink.onPage('p1', 'class')[0]!.left).toBe(1);
    expect(ink.isFading('p1')).toBe(true);
    vi.advanceTimersByTime(2650);
    const { left } = ink.onPage('p1', 'class')[0]!;
    expect(left).toBeGreaterThan(0.4);
    expect(left).toBeLessThan(0.6);
    vi.advanceTimersByTime(400);
    expect(ink.onPage('p1', 'class')).toEqual([]);
    expect(ink.isFading('p1')).toBe(false);
  });

  it('is told in parts with its last points; what it looks like comes with the first', () => {
    const ink = new LiveInk({ kind: 'sitting', id: 's1' }, line);
    vi.advanceTimersByTime(100);
    const head = { space: 'class', style, pressure: false, fade: 2000 } as const;
    const grow = ink.broadcast('w2', 'p1', head);
    grow([0, 0, 0.5, 0]);
    grow([0, 0, 0.5, 0, 1, 1, 0.5, 5], true);
    expect(line.sent.map(({ message }) => message)).toEqual([
      {
        log: { kind: 'sitting', id: 's1' },
        page: 'p1',
        stroke: 'w2',
        from: 0,
        points: packPoints([0, 0, 0.5, 0]),
        head,
      },
      {
        log: { kind: 'sitting', id: 's1' },
        page: 'p1',
        stroke: 'w2',
        from: 1,
        points: packPoints([1, 1, 0.5, 5]),
      },
    ]);
    // What comes back of one's own is not drawn twice.
    line.tell('drawn', drawn({ stroke: 'w2' }));
    expect(ink.onPage('p1', 'class')).toEqual([]);
  });

  it('is not kept for later while the connection is away', () => {
    const ink = new LiveInk({ kind: 'sitting', id: 's1' }, line);
    line.isOnline = false;
    ink.broadcast('w3', 'p1', { space: 'class', style, pressure: false })([0, 0, 0.5, 0], true);
    expect(line.sent).toEqual([]);
  });

  it('that is not one stays until it becomes a mark', () => {
    const ink = new LiveInk({ kind: 'sitting', id: 's1' }, line);
    line.tell('drawn', drawn({ stroke: 'm1' }));
    vi.advanceTimersByTime(4000);
    expect(ink.onPage('p1', 'class')[0]!.left).toBe(1);
    ink.finish('m1');
    line.tell('drawn', drawn({ stroke: 'm1', from: 2 }));
    expect(ink.onPage('p1', 'class')).toEqual([]);
  });
});
