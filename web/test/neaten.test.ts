import type { Mark, MarkOf } from '@doodla/core';
import { readShapes, surelyShape } from '@doodla/core/neaten';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { aShape, aStroke } from '../../core/test/helpers/marks';
import type { ShapeReader } from '../src/desk/neaten';
import { neatenDrawn, neatenMarks, takeReading } from '../src/desk/neaten';
import { ShapeWatch } from '../src/desk/shapeWatch';
import { InkGesture } from '../src/tools/pen/inkGesture';
import { restedInk } from '../src/tools/pen/restedInk';
import type { ShapeOffer } from '../src/desk/shapeOffer';
import { fakeFrames } from './helpers/fakeFrames';
import { TestDesk } from './helpers/testDesk';

/** Reads here what a browser has read in a worker. */
const read: ShapeReader = {
  readShapes: (...order) => Promise.resolve(readShapes(...order)),
  surelyShape: (...order) => Promise.resolve(surelyShape(...order)),
};

type Place = [number, number];

/** Ink through places, dense enough to be read. */
function ink(id: string, line: readonly Place[], set: Partial<Mark> = {}) {
  const points = line.slice(1).flatMap(([x, y], i) => {
    const [ax, ay] = line[i]!;
    return Array.from({ length: 21 }, (_, k) => [
      ax + ((x - ax) * k) / 20,
      ay + ((y - ay) * k) / 20,
      0.5,
      k,
    ]).flat();
  });
  return aStroke({ id, points, author: 'ada', ...(set as object) });
}

const box = (x: number, y: number, size = 100): Place[] => [
  [x, y],
  [x + 1.6 * size, y + 3],
  [x + 1.6 * size + 2, y + size],
  [x - 2, y + size - 2],
  [x, y],
];
const shapes = (desk: TestDesk) => [...desk.target.state.marks.values()].map((mark) => mark.kind);

/** The shapes that are offered. */
const offered = (desk: TestDesk) => desk.shapeOffer.get() as ShapeOffer;

describe('neatening what is selected', () => {
  it('puts a shape with the look of the ink in its place, in one step that gives the ink back', async () => {
    const style = { nature: 'marker', colour: '#d55e00', width: 9, opacity: 0.8 } as const;
    const drawn = ink('a', box(100, 100), { style, order: 'b5', space: 'table:7' });
    const desk = new TestDesk([drawn]);
    await neatenMarks(desk, [drawn], read);
    expect(desk.done).toHaveLength(1);
    expect(desk.mark('a')).toBeUndefined();
    const [shape] = desk.added;
    expect(shape).toMatchObject({ kind: 'path', closed: true, order: 'b5', space: 'table:7', author: 'ada' });
    expect(shape!.style).toEqual({ line: '#d55e00', width: 9, dash: 'solid', fill: null, opacity: 0.8 });
    desk.target.takeBack('step 1');
    expect(desk.mark('a')).toEqual(drawn);
  });

  it('offers what else it can be; another reading takes its place, and so does the ink as it was drawn', async () => {
    const drawn = ink('a', box(100, 100));
    const desk = new TestDesk([drawn]);
    await neatenMarks(desk, [drawn], read);
    const offer = offered(desk);
    const [{ readings }] = offer.parts as [(typeof offer.parts)[0]];
    expect(readings[0]!.kind).toBe('rectangle');
    expect(readings.length).toBeGreaterThan(1);
    takeReading(desk, offer, 1);
    expect(shapes(desk)).toEqual(['path']);
    const second = offered(desk);
    expect(second.parts[0]!.taken).toBe(1);
    takeReading(desk, second, 'drawn');
    expect(desk.shapeOffer.get()).toBeUndefined();
    expect([...desk.target.state.marks.values()]).toEqual([drawn]);
  });

  it('reads each drawing of several for itself, leaves writing and others’ ink alone, all in one step', async () => {
    const word = [200, 240, 280].map((x, i) => ink(`letter ${i}`, [[x, 500], [x + 14, 540], [x + 28, 500]])); // prettier-ignore
    const others = ink('other', box(500, 100), { author: 'bo' });
    const marks = [ink('a', box(100, 100)), ink('b', box(100, 300)), others, ...word];
    const desk = new TestDesk(marks);
    await neatenMarks(desk, marks, read);
    expect(desk.done).toHaveLength(1);
    expect(desk.added).toHaveLength(2);
    expect(desk.mark('other')).toBeDefined();
    expect(word.every(({ id }) => desk.mark(id))).toBe(true);
  });

  it('says so where there is no shape in it, and changes nothing', async () => {
    const tangle = ink('a', Array.from({ length: 40 }, (_, i): Place => [300 + 90 * Math.sin(i * 2.1), 300 + 80 * Math.cos(i * 3.7)])); // prettier-ignore
    const desk = new TestDesk([tangle]);
    await neatenMarks(desk, [tangle], read);
    expect(desk.done).toEqual([]);
    expect(desk.problems).toHaveLength(1);
  });

  it('makes nothing of ink that was wiped away meanwhile, and offers nothing from before', async () => {
    const [a, tangle] = [ink('a', box(100, 100)), ink('t', [[400, 400], [404, 402]])]; // prettier-ignore
    const desk = new TestDesk([a, tangle]);
    await neatenMarks(desk, [a], {
      ...read,
      readShapes: (...order) => {
        desk.target.perform([{ do: 'remove', mark: 'a' }]);
        return read.readShapes(...order);
      },
    });
    expect(shapes(desk)).toEqual(['stroke']);
    desk.shapeOffer.set({ page: 'p', parts: [], step: 's', at: 0, selected: true });
    await neatenMarks(desk, [tangle], read);
    expect(desk.shapeOffer.get()).toBeUndefined();
  });

  it('meets the corners that are there', async () => {
    const there = aShape({
      id: 's',
      form: 'rectangle',
      x: 100,
      y: 100,
      width: 200,
      height: 100,
      rotation: 0,
    });
    const line = ink('a', [[305, 206], [500, 400]]); // prettier-ignore
    const desk = new TestDesk([there, line]);
    await neatenMarks(desk, [line], read);
    const [made] = desk.added;
    expect(made?.kind === 'path' && made.points.slice(0, 2)).toEqual([300, 200]);
  });
});

describe('neatening while one draws', () => {
  it('makes a shape of what surely is one, and leaves letters alone', async () => {
    const desk = new TestDesk([ink('a', box(100, 100)), ink('l', [[500, 500], [500, 560]])]); // prettier-ignore
    await neatenDrawn(desk, ['a'], read);
    await neatenDrawn(desk, ['l'], read);
    expect(desk.mark('a')).toBeUndefined();
    expect(desk.mark('l')).toBeDefined();
    expect(desk.problems).toEqual([]);
  });

  it('reads a line and the head that follows as the arrow that they are, and gives both back', async () => {
    const shaft = ink('a', [[100, 100], [340, 100]]); // prettier-ignore
    const head = ink('b', [[310, 80], [341, 101], [309, 122]]); // prettier-ignore
    const desk = new TestDesk([shaft]);
    await neatenDrawn(desk, ['a'], read);
    expect(shapes(desk)).toEqual(['path']);
    desk.target.perform([{ do: 'add', mark: head }]);
    desk.shapeOffer.set(undefined); // The pen was put down for the head.
    await neatenDrawn(desk, ['b'], read);
    expect([...desk.target.state.marks.values()]).toMatchObject([{ kind: 'path', heads: 'end' }]);
    takeReading(desk, offered(desk), 'drawn');
    expect(shapes(desk)).toEqual(['stroke', 'stroke']);
  });

  it('leaves the ink without a word where only ink is allowed', async () => {
    const desk = new TestDesk([ink('a', box(100, 100))]);
    desk.refuses = true;
    await neatenDrawn(desk, ['a'], read);
    expect(shapes(desk)).toEqual(['stroke']);
    expect(desk.problems).toEqual([]);
    expect(await restedInk(desk, ink('b', box(100, 100)), read)).toBeUndefined();
  });

  it('does nothing to ink that somebody has wiped away meanwhile', async () => {
    const desk = new TestDesk([ink('a', box(100, 100))]);
    const slow: ShapeReader = {
      ...read,
      surelyShape: (...order) => {
        desk.target.perform([{ do: 'remove', mark: 'a' }]);
        return read.surelyShape(...order);
      },
    };
    await neatenDrawn(desk, ['a'], slow);
    expect(shapes(desk)).toEqual([]);
    await neatenDrawn(desk, ['a'], read);
    expect(desk.done).toHaveLength(1);
  });
});

describe('a hand that rests', () => {
  beforeEach(() => void vi.useFakeTimers());
  afterEach(() => void vi.useRealTimers());

  it('at the end of a drawing turns it into the shape that it is, a line into a straight one, a word into nothing', async () => {
    const desk = new TestDesk([]);
    const shape = await restedInk(desk, ink('a', box(100, 100)), read);
    expect(shape).toMatchObject({ mark: { kind: 'path', closed: true } });
    expect(await restedInk(desk, ink('a', [[100, 100], [300, 110]]), read)).toBe('straight'); // prettier-ignore
    const word = Array.from({ length: 12 }, (_, i): Place => [100 + i * 25, i % 2 ? 140 : 100 + 9 * i]);
    expect(await restedInk(desk, ink('a', word), read)).toBeUndefined();
  });

  it('is waited for before a drawing of several strokes is read', () => {
    const desk = new TestDesk([]);
    const watch = new ShapeWatch(desk);
    const asked = vi.spyOn(desk, 'targetMarks', 'get');
    watch.drawn('a');
    vi.advanceTimersByTime(400);
    watch.hold();
    vi.advanceTimersByTime(4000);
    expect(asked).not.toHaveBeenCalled();
    watch.drawn('b');
    expect(vi.getTimerCount()).toBe(1);
  });
});

describe('the pen', () => {
  const point = (x: number, y: number, time: number) => ({
    x,
    y,
    pressure: 0.5,
    time,
    steady: false,
    centred: false,
  });
  const drawLine = (desk: TestDesk, nature: 'pen' | 'highlighter') => {
    const style = { nature, colour: '#000000', width: 4, opacity: 1 } as const;
    const gesture = new InkGesture(desk, style, true, point(10, 10, 0), () => undefined);
    for (let i = 1; i < 30; i++) gesture.move([point(10 + 5 * i, 10 + 20 * Math.sin(i), 10 * i)]);
    gesture.end();
  };

  it('tells of what it draws only while it is to be made neat, and takes back what was offered', () => {
    const desk = new TestDesk([]);
    desk.shapeOffer.set({ page: 'p', parts: [], step: 's', at: 0, selected: false });
    drawLine(desk, 'pen');
    expect(desk.shapeOffer.get()).toBeUndefined();
    expect(desk.drawn).toEqual([]);
    desk.penCase.patch({ neat: true });
    drawLine(desk, 'pen');
    expect(desk.drawn).toEqual([desk.added.at(-1)!.id]);
    drawLine(desk, 'highlighter');
    expect(desk.drawn).toHaveLength(1);
  });

  it('is straight after a rest however the hand trembles in it, and is not where the hand went on before that was heard', async () => {
    vi.useFakeTimers();
    const showFrame = fakeFrames();
    const frame = async () => {
      showFrame();
      await vi.advanceTimersByTimeAsync(0);
    };
    const desk = new TestDesk([]);
    const draw = () => {
      const style = { nature: 'highlighter', colour: '#ffff00', width: 20, opacity: 0.5 } as const;
      const gesture = new InkGesture(desk, style, true, point(10, 10, 0), () => undefined);
      gesture.move([point(80, 60, 100), point(160, 20, 200)]);
      return gesture;
    };
    const pointsOf = () => (desk.added.at(-1) as MarkOf<'stroke'>).points.length / 4;

    const trembling = draw();
    for (let i = 0; i < 4; i++) {
      await vi.advanceTimersByTimeAsync(160);
      trembling.move([point(160 + (i % 2), 20, 360 + 160 * i)]);
    }
    await vi.advanceTimersByTimeAsync(700);
    await frame();
    trembling.end();
    expect(pointsOf()).toBe(2);

    const goingOn = draw();
    await vi.advanceTimersByTimeAsync(700);
    goingOn.move([point(300, 200, 1000)]);
    await frame();
    goingOn.end();
    expect(pointsOf()).toBeGreaterThan(2);
    vi.unstubAllGlobals();
    vi.useRealTimers();
  });
});
