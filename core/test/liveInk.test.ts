import type { DrawMessage, DrawnPart, InkHead, LogRef } from '../src/index.js';
import { INK_TICK_MS, LIVE, packPoints, unpackPoints } from '../src/index.js';
import fc from 'fast-check';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { LiveInk } from '../src/client/index.js';
import { FakeLine } from './helpers/fakeLine.js';

const LOG: LogRef = { kind: 'sitting', id: 'log' };
const HEAD: InkHead = {
  space: 'class',
  style: { nature: 'pen', colour: '#0072b2', width: 3, opacity: 1 },
  pressure: true,
};

/** `count` points, flat x, y, pressure, time. */
const points = (count: number, from = 0) =>
  Array.from({ length: count }, (_, i) => [from + i, 10, 0.5, (from + i) * 16]).flat();

const part = (more: Partial<DrawnPart> = {}): DrawnPart => ({
  stroke: 's',
  author: 'wren',
  from: 0,
  points: packPoints(points(3))!,
  head: HEAD,
  ...more,
});

/** A part after the first. */
const laterPart = (from: number, count = 3): DrawnPart => ({
  stroke: 's',
  author: 'wren',
  from,
  points: packPoints(points(count, from))!,
});

let connection: FakeLine;
let ink: LiveInk;
let now: number;

beforeEach(() => {
  now = 1000;
  vi.spyOn(performance, 'now').mockImplementation(() => now);
  connection = new FakeLine();
  ink = new LiveInk(LOG, connection);
  return () => {
    ink.close();
    vi.restoreAllMocks();
  };
});

const hear = (parts: DrawnPart[], log = 'log', page = 'p1') =>
  connection.tell(LIVE.drawn, { log, page, parts });
const lengths = (page = 'p1') => ink.onPage(page, 'class').map((stroke) => stroke.points.length / 4);

describe('ink of others while it is wet', () => {
  it('grows by its parts, on its page and in its log', () => {
    hear([part(), part({ stroke: 't', author: 'nash' })]);
    hear([laterPart(3, 2)]);
    hear([part({ stroke: 'elsewhere' })], 'another log');
    expect(lengths()).toEqual([5, 3]);
    expect(ink.onPage('p2', 'class')).toEqual([]);
    expect(ink.onPage('p1', 'class')[0]).toMatchObject({ author: 'wren', style: HEAD.style, pressure: true });
  });

  it('is unknown until its head is heard, as for those who join in the middle', () => {
    hear([laterPart(40)]);
    expect(lengths()).toEqual([]);
    hear([part({ from: 43 })]);
    expect(lengths()).toEqual([3]);
    hear([laterPart(46)]);
    expect(lengths()).toEqual([6]);
  });

  it('is not doubled by a part that is heard twice', () => {
    hear([part()]);
    hear([laterPart(0)]);
    expect(lengths()).toEqual([3]);
  });

  it('ends when it becomes a mark, whatever comes after', () => {
    hear([part()]);
    const before = ink.changed.get();
    ink.finish('s');
    expect(ink.changed.get()).toBe(before + 1);
    hear([part({ from: 3 })]);
    expect(lengths()).toEqual([]);
  });

  it('is given up when nothing more is heard of it', () => {
    hear([part()]);
    now += 7900;
    expect(lengths()).toEqual([3]);
    now += 200;
    expect(lengths()).toEqual([]);
  });

  it('that fades is seen less and less in its last moments', () => {
    hear([part({ head: { ...HEAD, fade: 2000 } })]);
    const left = () => ink.onPage('p1', 'class')[0]?.left;
    expect(ink.isFading('p1')).toBe(true);
    expect(left()).toBe(1);
    now += 1650;
    expect(left()).toBeCloseTo(0.5);
    now += 400;
    expect(left()).toBeUndefined();
    expect(ink.isFading('p1')).toBe(false);
  });

  it('of nonsense draws nothing and throws nothing', () => {
    hear([part({ points: 'not ink at all!' })]);
    expect(lengths()).toEqual([0]);
  });
});

describe('own ink on its way to others', () => {
  const sentParts = () => connection.sent.map(({ message }) => message as unknown as DrawMessage);

  it('is not drawn again when it comes back', () => {
    ink.broadcast('s', 'p1', HEAD)(points(3), true);
    hear([part()]);
    expect(lengths()).toEqual([]);
  });

  it('goes out once in a tick at most, and whole at the end', () => {
    const tell = ink.broadcast('s', 'p1', HEAD);
    for (let count = 1; count <= 100; count++) {
      now += 4;
      tell(points(count));
    }
    expect(sentParts().length).toBeLessThanOrEqual(Math.ceil(400 / INK_TICK_MS) + 1);
    tell(points(100), true);
    const all = sentParts().flatMap((message) => unpackPoints(message.points)!);
    expect(all).toEqual(points(100));
  });

  it('says anew now and then what it is like', () => {
    const tell = ink.broadcast('s', 'p1', HEAD);
    for (let count = 1; count <= 45; count++) {
      now += 40;
      tell(points(count));
    }
    const withHead = sentParts().flatMap(({ head }, i) => (head ? [i] : []));
    expect(withHead).toEqual([0, 20, 40]);
  });

  it('is not kept for later while there is no connection', () => {
    const tell = ink.broadcast('s', 'p1', HEAD);
    connection.isOnline = false;
    tell(points(10));
    connection.isOnline = true;
    now += 40;
    tell(points(12));
    expect(sentParts().map(({ from }) => from)).toEqual([10]);
  });

  it('arrives as it was drawn, however it is cut into parts', () => {
    const other = new FakeLine();
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 40 }), { minLength: 1, maxLength: 30 }), (steps) => {
        const there = new LiveInk(LOG, other);
        const id = `stroke-${(now += 1)}`;
        const tell = ink.broadcast(id, 'p1', HEAD);
        connection.sent.length = 0;
        let count = 0;
        for (const step of steps) {
          now += step;
          tell(points((count += step)));
        }
        tell(points(count), true);
        for (const { page, ...rest } of sentParts())
          other.tell(LIVE.drawn, { log: 'log', page, parts: [{ ...rest, author: 'wren' }] });
        expect(there.onPage('p1', 'class').map((stroke) => stroke.points)).toEqual([points(count)]);
        there.close();
      }),
    );
  });

  it('can be left here to fade', () => {
    const { style, pressure } = HEAD;
    ink.leave({
      id: 's',
      page: 'p1',
      author: 'me',
      space: 'class',
      style,
      pressure,
      points: points(4),
      fade: 900,
    });
    expect(lengths()).toEqual([4]);
    now += 1000;
    expect(lengths()).toEqual([]);
  });
});
