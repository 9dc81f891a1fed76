import fc from 'fast-check';
import { polygonArea as areaElsewhere } from 'd3-polygon';
import { describe, expect, it } from 'vitest';
import type { Point } from '../src/neaten/trace.js';
import type { Reading } from '../src/neaten/index.js';
import {
  cornersOn,
  drawingsOf,
  fitCircle,
  fitEllipse,
  readShapes,
  snapBody,
  surelyShape,
} from '../src/neaten/index.js';
import { drawn } from './hand/hand.mjs';
import { seeded } from './hand/random.mjs';
import { KINDS, roughShapes } from './hand/roughShapes.mjs';
import { COMMON_WORDS, writtenLetters } from './hand/writing.mjs';
import { aPath, aShape } from './helpers/marks.js';

const places = (points: readonly Point[]) => ({
  x: Float64Array.from(points, ([x]) => x),
  y: Float64Array.from(points, ([, y]) => y),
});

/** Corners of a reading's path. */
function cornersOf({ body }: Reading): Point[] {
  if (body.kind !== 'path') throw new Error('This reading is no path.');
  const { points } = body;
  return Array.from({ length: points.length / 2 }, (_, i) => [points[2 * i]!, points[2 * i + 1]!]);
}

/** A line through places, as a stroke without any fault. */
const stroke = (...line: Point[]) =>
  line.slice(1).flatMap(([x, y], i) => {
    const [ax, ay] = line[i]!;
    return Array.from({ length: 21 }, (_, k) => [
      ax + ((x - ax) * k) / 20,
      ay + ((y - ay) * k) / 20,
      0.5,
      0,
    ]).flat();
  });

const side = (a: Point, b: Point) => Math.hypot(b[0] - a[0], b[1] - a[1]);

describe('what ink means', () => {
  it('is read right first in 97 of 100 rough drawings, and among the first three in 99.5', () => {
    const shapes = roughShapes(KINDS.length * 40, 21);
    const right = shapes.map(({ kind, strokes }) => {
      const kinds = readShapes(strokes).map((reading) => reading.kind);
      return { first: kinds[0] === kind, three: kinds.slice(0, 3).includes(kind) };
    });
    const share = (of: 'first' | 'three') => right.filter((one) => one[of]).length / right.length;
    expect(share('first')).toBeGreaterThanOrEqual(0.97);
    expect(share('three')).toBeGreaterThanOrEqual(0.995);
  });

  it('does not depend on where, how large or which way round it is drawn', () => {
    const triangle: Point[] = [
      [0, 0],
      [100, 5],
      [60, 25],
      [0, 0],
    ];
    const number = fc.double({ min: -900, max: 900, noNaN: true });
    fc.assert(
      fc.property(
        number,
        number,
        fc.double({ min: 0.4, max: 9, noNaN: true }),
        fc.boolean(),
        (dx, dy, by, back) => {
          const line = triangle.map(([x, y]): Point => [x * by + dx, y * by + dy]);
          const [best] = readShapes([stroke(...(back ? line.toReversed() : line))]);
          expect(best!.kind).toBe('triangle');
        },
      ),
      { numRuns: 40 },
    );
  });

  it('is nothing for a dot, and nothing for strokes that have nothing to do with each other', () => {
    expect(readShapes([])).toEqual([]);
    expect(readShapes([[5, 5, 0.5, 0]])).toEqual([]);
    expect(readShapes([[5, 5, 0.5, 0, 7, 6, 0.5, 9]])).toEqual([]);
    expect(readShapes([stroke([0, 0], [90, 0]), stroke([0, 300], [90, 310])])).toEqual([]);
  });

  it('never fails, whatever is drawn', () => {
    const number = fc.integer({ min: -500, max: 500 });
    const strokes = fc.array(fc.array(fc.tuple(number, number), { minLength: 1, maxLength: 40 }), {
      maxLength: 5,
    });
    fc.assert(
      fc.property(strokes, (lines) => {
        const readings = readShapes(lines.map((line) => line.flatMap(([x, y]) => [x, y, 0.5, 0])));
        for (const { body } of readings) {
          const numbers = body.kind === 'path' ? body.points : [body.x, body.y, body.width, body.height];
          expect(numbers.every(Number.isFinite)).toBe(true);
        }
        expect(readings.map(({ cost }) => cost)).toEqual(
          readings.map(({ cost }) => cost).sort((a, b) => a - b),
        );
      }),
      { numRuns: 150 },
    );
  });
});

describe('a neat shape', () => {
  const neat = (kind: Reading['kind'], seed: number) => {
    const at = KINDS.indexOf(kind);
    const { strokes } = roughShapes(KINDS.length, seed)[at]!;
    return readShapes(strokes).find((reading) => reading.kind === kind)!;
  };
  const seeds = Array.from({ length: 12 }, (_, i) => 300 + i);

  it.each(seeds)('is exactly what its kind says (drawing %i)', (seed) => {
    const square = cornersOf(neat('square', seed));
    for (let i = 0; i < 4; i++) {
      const [a, b, c] = [square[i]!, square[(i + 1) % 4]!, square[(i + 2) % 4]!];
      expect(side(a, b) / side(b, c)).toBeCloseTo(1, 2);
      expect(
        Math.abs((b[0] - a[0]) * (c[0] - b[0]) + (b[1] - a[1]) * (c[1] - b[1])) / side(a, b) ** 2,
      ).toBeLessThan(0.002);
    }
    const [a, b, c, d] = cornersOf(neat('parallelogram', seed)) as [Point, Point, Point, Point];
    expect(b[0] - a[0]).toBeCloseTo(c[0] - d[0], 1);
    expect(b[1] - a[1]).toBeCloseTo(c[1] - d[1], 1);
    const rhombus = cornersOf(neat('rhombus', seed));
    for (let i = 1; i < 4; i++)
      expect(side(rhombus[i]!, rhombus[(i + 1) % 4]!)).toBeCloseTo(side(rhombus[0]!, rhombus[1]!), 1);
    const triangle = cornersOf(neat('equilateral', seed));
    for (let i = 1; i < 3; i++)
      expect(side(triangle[i]!, triangle[(i + 1) % 3]!)).toBeCloseTo(side(triangle[0]!, triangle[1]!), 1);
    const [corner, p, q] = cornersOf(neat('rightTriangle', seed)) as [Point, Point, Point];
    const product = (p[0] - corner[0]) * (q[0] - corner[0]) + (p[1] - corner[1]) * (q[1] - corner[1]);
    expect(Math.abs(product) / (side(p, corner) * side(q, corner))).toBeLessThan(0.001);
  });

  it('has its edges exactly level and upright where they nearly are', () => {
    const [best] = readShapes([stroke([0, 4], [200, 0], [203, 120], [-2, 118], [0, 4])]);
    expect(best!.kind).toBe('rectangle');
    const [a, b, c, d] = cornersOf(best!) as [Point, Point, Point, Point];
    const xs = new Set([a, b, c, d].map(([x]) => x.toFixed(2)));
    const ys = new Set([a, b, c, d].map(([, y]) => y.toFixed(2)));
    expect([xs.size, ys.size]).toEqual([2, 2]);
  });

  it('is about as large as what was drawn, by another package’s areas', () => {
    for (const { kind, strokes } of roughShapes(KINDS.length * 6, 5)) {
      if (!['triangle', 'square', 'kite', 'trapezium', 'quadrilateral'].includes(kind) || strokes.length > 1)
        continue;
      const ink = strokes[0]!;
      const line = Array.from({ length: ink.length / 4 }, (_, i): [number, number] => [
        ink[4 * i]!,
        ink[4 * i + 1]!,
      ]);
      const area = Math.abs(areaElsewhere(cornersOf(readShapes(strokes)[0]!) as [number, number][]));
      expect(area / Math.abs(areaElsewhere(line))).toBeGreaterThan(0.9);
      expect(area / Math.abs(areaElsewhere(line))).toBeLessThan(1.12);
    }
  });

  it('is an arrow with its heads at the ends where they were drawn', () => {
    const shaft = stroke([0, 0], [200, 0]);
    const head = (x: number, by: number) => stroke([x + by, -18], [x, 0], [x + by, 18]);
    const headsOf = (...strokes: number[][]) => {
      const [best] = readShapes(strokes);
      return best?.kind === 'arrow' && best.body.kind === 'path' ? best.body.heads : best?.kind;
    };
    expect(headsOf(shaft, head(200, -25))).toBe('end');
    expect(headsOf(shaft, head(0, 25))).toBe('start');
    expect(headsOf(shaft, head(0, 25), head(200, -25))).toBe('both');
    expect(headsOf(stroke([0, 0], [200, 0], [175, -18], [200, 0], [175, 18]))).toBe('end');
  });
});

describe('the nearest circle and ellipse', () => {
  // Gander, Golub, Strebel, "Least-squares fitting of circles and ellipses" (BIT 34, 1994), sections 5 and 7; values from memory.
  const eight: Point[] = [
    [1, 7],
    [2, 6],
    [5, 8],
    [7, 7],
    [9, 5],
    [3, 7],
    [6, 2],
    [8, 4],
  ];

  it('are those of the published example', () => {
    const circle = fitCircle(places(eight.slice(0, 6)))!;
    expect(circle.x).toBeCloseTo(4.7398, 4);
    expect(circle.y).toBeCloseTo(2.9835, 4);
    expect(circle.radius).toBeCloseTo(4.7142, 4);
    const ellipse = fitEllipse(places(eight))!;
    expect(ellipse.x).toBeCloseTo(2.6996, 4);
    expect(ellipse.y).toBeCloseTo(3.816, 4);
    expect(ellipse.a).toBeCloseTo(6.5187, 4);
    expect(ellipse.b).toBeCloseTo(3.0319, 4);
    expect(ellipse.turn).toBeCloseTo(0.3596, 4);
  });

  it('are none for points on a line', () => {
    const line = places(Array.from({ length: 9 }, (_, i): Point => [i, 2 * i]));
    expect(fitCircle(line)).toBeUndefined();
    expect(fitEllipse(line)).toBeUndefined();
  });
});

describe('writing', () => {
  const faces = ['EMSReadability', 'EMSFelix', 'EMSAllure', 'HersheySans1', 'HersheyScript1', 'EMSNixish'];

  it('is left alone while one draws, however large', () => {
    const taken = Array.from({ length: 200 }, (_, i) => {
      const random = seeded(4000 + i);
      const text = random.pick(COMMON_WORDS);
      const letters = writtenLetters(text, {
        face: random.pick(faces),
        size: random.between(40, 140),
        random,
      });
      return (
        surelyShape(
          letters.flatMap(({ strokes }) => strokes),
          [],
        ).length > 0
      );
    });
    expect(taken.filter(Boolean).length).toBeLessThanOrEqual(1);
  });

  it('is told from a shape by what stands beside it', () => {
    const round = drawn(
      Array.from({ length: 60 }, (_, i): Point => [
        200 + 60 * Math.cos(i / 9.4),
        200 + 60 * Math.sin(i / 9.4),
      ]),
      120,
      seeded(3),
    );
    expect(surelyShape([round], [])[0]?.kind).toBe('circle');
    expect(surelyShape([round], [{ x: 30, y: 150, width: 90, height: 110 }])).toEqual([]);
    expect(surelyShape([round], [{ x: 30, y: 600, width: 90, height: 110 }])[0]?.kind).toBe('circle');
    expect(surelyShape([round], [{ x: 0, y: 100, width: 700, height: 300 }])[0]?.kind).toBe('circle');
  });
});

describe('drawings among several strokes', () => {
  it('are those whose ends meet; what lies within another is one of its own', () => {
    const [top, right] = [stroke([0, 0], [200, 0]), stroke([202, 3], [199, 150])];
    const inside = stroke([80, 60], [110, 60], [110, 90], [80, 62]);
    const away = stroke([600, 0], [700, 0]);
    expect(drawingsOf([top, inside, right, away])).toEqual([[0, 2], [1], [3]]);
    expect(drawingsOf([])).toEqual([]);
  });
});

describe('corners that are there', () => {
  const square = aShape({
    form: 'rectangle',
    x: 100,
    y: 100,
    width: 200,
    height: 100,
    rotation: 0,
    flip: false,
  });

  it('are those of shapes and lines, not those that steer a curve', () => {
    expect(cornersOn([square])).toContainEqual([300, 200]);
    expect(cornersOn([aPath({ course: 'straight', points: [1, 2, 3, 4] })])).toEqual([
      [1, 2],
      [3, 4],
    ]);
    expect(cornersOn([aPath({ course: 'cubic', points: [1, 2, 3, 4, 5, 6, 7, 8] })])).toEqual([]);
  });

  it('draw ends of lines to them one by one, and shapes as they are', () => {
    const line = readShapes([stroke([306, 205], [500, 400])])[0]!;
    const met = snapBody(line.kind, line.body, cornersOn([square]));
    expect(cornersOf({ ...line, body: met })[0]).toEqual([300, 200]);
    const rhombus = readShapes([stroke([305, 206], [405, 256], [305, 306], [205, 256], [305, 206])]).find(
      ({ kind }) => kind === 'rhombus',
    )!;
    const moved = cornersOf({ ...rhombus, body: snapBody('rhombus', rhombus.body, cornersOn([square])) });
    expect(moved.some(([x, y]) => Math.hypot(x - 300, y - 200) < 0.02)).toBe(true);
    expect(side(moved[0]!, moved[1]!)).toBeCloseTo(side(moved[1]!, moved[2]!), 1);
    expect(snapBody(line.kind, line.body, [[900, 900]])).toEqual(line.body);
  });
});
