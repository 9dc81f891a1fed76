import { polygonArea as areaElsewhere, polygonCentroid, polygonLength } from 'd3-polygon';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  applyChanges,
  fontMetrics,
  invertChanges,
  isMark,
  isPage,
  isPagePatch,
  markBounds,
  paintMark,
  stateOf,
} from '../src/index.js';
import type { Gauge, Mark } from '../src/index.js';
import {
  angleKind,
  angleSum,
  centroid,
  figuresOf,
  gaugeOf,
  ImpossibleFigure,
  outlineOf,
  ownGauge,
  polygonFacts,
  saidAngle,
  saidArea,
  saidLength,
  unitOf,
  UNITS,
  withAngle,
  withSide,
} from '../src/measure/index.js';
import { aPage, aPath, aShape } from './helpers/marks.js';

type Point = [number, number];

const cm: Gauge = gaugeOf('cm', undefined, false);
const polygon = (...corners: Point[]) => ({ kind: 'corners', corners, closed: true }) as const;

/** Corners round a middle, so that no sides cross. */
const starlike = fc
  .array(fc.double({ min: 40, max: 300, noNaN: true }), { minLength: 3, maxLength: 9 })
  .map((radii) =>
    radii.map((radius, i): Point => {
      const angle = (i * 2 * Math.PI) / radii.length;
      return [500 + radius * Math.cos(angle), 400 + radius * Math.sin(angle)];
    }),
  );

describe('figures of a polygon', () => {
  it('are those of another package, and its angles add up to (n − 2)·180°', () => {
    fc.assert(
      fc.property(starlike, fc.boolean(), (corners, back) => {
        const line = back ? corners.toReversed() : corners;
        const figures = figuresOf(polygon(...line));
        expect(figures.area).toBeCloseTo(Math.abs(areaElsewhere(line)), 6);
        expect(figures.perimeter).toBeCloseTo(polygonLength(line), 6);
        const [x, y] = polygonCentroid(line);
        expect(centroid(line)[0]).toBeCloseTo(x, 6);
        expect(centroid(line)[1]).toBeCloseTo(y, 6);
        const sum = figures.angles.reduce<number>((all, angle) => all + angle!, 0);
        expect(sum).toBeCloseTo(angleSum(figures), 6);
      }),
    );
  });

  it('are called what the textbooks call them', () => {
    const facts = (...corners: Point[]) => polygonFacts(figuresOf(polygon(...corners)));
    expect(facts([0, 0], [3, 0], [3, 4])).toEqual(['scalene', 'rightTriangle']);
    expect(facts([0, 0], [2, 0], [1, Math.sqrt(3)])).toEqual(['equilateral', 'acuteTriangle']);
    expect(facts([0, 0], [4, 0], [2, 0.5])).toEqual(['isosceles', 'obtuseTriangle']);
    expect(facts([0, 0], [2, 0], [2, 2], [0, 2])).toEqual(['square']);
    expect(facts([0, 0], [3, 0], [3, 2], [0, 2])).toEqual(['rectangle']);
    expect(facts([-1, 0], [0, -2], [1, 0], [0, 2])).toEqual(['rhombus']);
    expect(facts([0, 0], [3, 0], [4, 2], [1, 2])).toEqual(['parallelogram']);
    expect(facts([0, 0], [5, 0], [4, 2], [1, 2])).toEqual(['trapezium']);
    expect(facts([0, 0], [1, 1], [0, 4], [-1, 1])).toEqual(['kite']);
    expect(facts([0, 0], [1, 1], [0, 4], [-2, 1])).toEqual([]);
    const hexagon = Array.from({ length: 6 }, (_, i): Point => [
      Math.cos((i * Math.PI) / 3),
      Math.sin((i * Math.PI) / 3),
    ]);
    expect(facts(...hexagon)).toEqual(['regular']);
    expect([30, 90, 120, 180, 200].map(angleKind)).toEqual([
      'acute',
      'right',
      'obtuse',
      'straight',
      'reflex',
    ]);
  });

  it('have a reflex angle where it goes inwards', () => {
    const { angles } = figuresOf(polygon([0, 0], [4, 0], [4, 4], [2, 1]));
    expect(angles[3]).toBeGreaterThan(180);
    expect(angles.map((angle) => angle! > 180)).toEqual([false, false, false, true]);
  });
});

describe('figures of what is round', () => {
  it('are those of circles and arcs', () => {
    const circle = figuresOf({ kind: 'ellipse', centre: [0, 0], a: 3, b: 3 });
    expect(circle).toMatchObject({ radius: 3 });
    expect(circle.perimeter).toBeCloseTo(6 * Math.PI, 9);
    expect(circle.area).toBeCloseTo(9 * Math.PI, 9);
    const arc = figuresOf(outlineOf(aPath({ course: 'arc', points: [10, 0, 0, 10, -10, 0] })));
    expect(arc.radius).toBeCloseTo(10, 9);
    expect(arc.sides[0]).toBeCloseTo(10 * Math.PI, 9);
    expect(arc.angles[0]).toBeCloseTo(180, 9);
  });

  it('are right for ellipses, by the complete elliptic integral (DLMF 19.9.9), here summed up by Simpson’s rule', () => {
    for (const [a, b] of [
      [10, 5],
      [7, 6.5],
      [20, 2],
    ] as const) {
      // prettier-ignore
      const pieces = 4000;
      const speed = (t: number) => Math.hypot(a * Math.sin(t), b * Math.cos(t));
      const step = (2 * Math.PI) / pieces;
      const sum = Array.from(
        { length: pieces + 1 },
        (_, i) => speed(i * step) * (i % pieces === 0 ? 1 : i % 2 ? 4 : 2),
      );
      const length = (step / 3) * sum.reduce((all, value) => all + value, 0);
      expect(figuresOf({ kind: 'ellipse', centre: [0, 0], a, b }).perimeter / length).toBeCloseTo(1, 3);
    }
  });

  it('are those of the curve for what is neither', () => {
    const rounded = outlineOf(
      aShape({ form: 'rounded', x: 0, y: 0, width: 100, height: 100, rotation: 0, flip: false }),
    );
    // Corners of radius 20: 4·60 + 2·20·π round, 100² − (4 − π)·20² in.
    expect(figuresOf(rounded).perimeter).toBeCloseTo(240 + 40 * Math.PI, 0);
    expect(figuresOf(rounded).area! / (10_000 - (4 - Math.PI) * 400)).toBeCloseTo(1, 3);
    const turned = outlineOf(
      aShape({ form: 'rectangle', x: 0, y: 0, width: 30, height: 40, rotation: 33, flip: true }),
    );
    expect(figuresOf(turned)).toMatchObject({
      area: expect.closeTo(1200, 6) as number,
      perimeter: expect.closeTo(140, 6) as number,
    });
  });
});

describe('a shape obeys', () => {
  const length = fc.double({ min: 5, max: 900, noNaN: true });

  it('when a side gets a length: it has it, and its first corner stays', () => {
    fc.assert(
      fc.property(starlike, fc.nat(8), length, fc.boolean(), (corners, n, wanted, closed) => {
        const sides = closed ? corners.length : corners.length - 1;
        const i = n % sides;
        const now = withSide({ corners, closed }, i, wanted);
        expect(figuresOf({ kind: 'corners', corners: now, closed }).sides[i]).toBeCloseTo(wanted, 6);
        expect(now[i]).toEqual(corners[i]);
      }),
    );
  });

  it('when an angle gets a size: it has it, and its corner and the one before stay', () => {
    fc.assert(
      fc.property(
        starlike,
        fc.nat(8),
        fc.double({ min: 5, max: 175, noNaN: true }),
        fc.boolean(),
        (corners, n, wanted, closed) => {
          const i = closed ? n % corners.length : 1 + (n % (corners.length - 2));
          const now = withAngle({ corners, closed }, i, wanted);
          const { angles } = figuresOf({ kind: 'corners', corners: now, closed });
          // Turned far enough, the shape turns inside out, and what was inside is outside.
          const [is, outside] = [angles[i]!, 360 - angles[i]!];
          expect(Math.min(Math.abs(is - wanted), closed ? Math.abs(outside - wanted) : 360)).toBeLessThan(
            1e-6,
          );
          const before = (i - 1 + corners.length) % corners.length;
          expect([now[i], now[before]]).toEqual([corners[i], corners[before]]);
          const beside = (i + 1) % corners.length;
          const side = (line: readonly (readonly number[])[]) =>
            Math.hypot(line[beside]![0]! - line[i]![0]!, line[beside]![1]! - line[i]![1]!);
          expect(side(now)).toBeCloseTo(side(corners), 6);
        },
      ),
    );
  });

  it('and stays what it is: squares square, rectangles and parallelograms parallel', () => {
    const square: Point[] = [[0, 0], [10, 0], [10, 10], [0, 10]]; // prettier-ignore
    expect(
      withSide({ corners: square, closed: true }, 1, 20).map((corner) => corner.map(Math.round)),
    ).toEqual([
      [-10, 0],
      [10, 0],
      [10, 20],
      [-10, 20],
    ]);
    const rectangle: Point[] = [[0, 0], [30, 0], [30, 10], [0, 10]]; // prettier-ignore
    expect(withSide({ corners: rectangle, closed: true }, 0, 40)).toEqual([
      [0, 0],
      [40, 0],
      [40, 10],
      [0, 10],
    ]);
    const leaning = withAngle({ corners: rectangle, closed: true }, 0, 60);
    expect(polygonFacts(figuresOf({ kind: 'corners', corners: leaning, closed: true }))).toEqual([
      'parallelogram',
    ]);
  });

  it('unless no figure can be like that', () => {
    const triangle: Point[] = [[0, 0], [10, 0], [4, 8]]; // prettier-ignore
    for (const wanted of [0, -3, Number.NaN])
      expect(() => withSide({ corners: triangle, closed: true }, 0, wanted)).toThrow(ImpossibleFigure);
    for (const wanted of [0, 180, 270, Number.NaN])
      expect(() => withAngle({ corners: triangle, closed: true }, 0, wanted)).toThrow(ImpossibleFigure);
    expect(() => withAngle({ corners: triangle, closed: false }, 0, 60)).toThrow(ImpossibleFigure);
  });
});

describe('lengths are said', () => {
  it('in units that are as long as they are: an inch is 96 page units and 25.4 mm (CSS Values 4 §6.2)', () => {
    expect(saidLength(96, gaugeOf('inch', undefined, false))).toBe('1.00 in');
    expect(saidLength(96, gaugeOf('mm', undefined, false))).toBe('25 mm');
    expect(saidLength(96, cm)).toBe('2.5 cm');
    expect(saidLength(96, gaugeOf('cm', undefined, true))).toBe('2,5 cm');
    expect(saidArea(96 * 96, gaugeOf('inch', undefined, false))).toBe('1.00 in²');
    expect(saidAngle(59.96, cm)).toBe('60.0°');
  });

  it('in squares of the page’s own ruling', () => {
    const squared = aPage({ surface: { kind: 'blank', colour: '#ffffff', ruling: 'squared', spacing: 10 } });
    expect(saidLength((96 / 25.4) * 30, gaugeOf('squares', squared, false))).toMatch(/^3\.0 /);
    for (const unit of UNITS) expect(unitOf(gaugeOf(unit, squared, true), squared)).toBe(unit);
  });

  it('in a scale of the page: a stretch of a map that is known', () => {
    const map = ownGauge(200, 5, 'km', cm);
    expect(saidLength(300, map)).toBe('7.5 km');
    expect(unitOf(map, undefined)).toBeUndefined();
  });

  it('in letters that the page’s font has', () => {
    for (const unit of UNITS)
      for (const letter of `${gaugeOf(unit, undefined, true).unit}²°,.=PAr`)
        expect(fontMetrics('andika').advance(letter.codePointAt(0)!), letter).toBeDefined();
  });
});

describe('a mark that shows its measures', () => {
  const triangle = aPath({
    ...{ id: 't', course: 'straight', closed: true, points: [100, 100, 400, 100, 400, 500] },
    measures: {
      shown: ['angles', 'sides', 'perimeter', 'area'],
      gauge: { unit: 'u', per: 100, decimals: 1, comma: false },
    },
  });
  const texts = (mark: Mark) => paintMark(mark).flatMap((item) => (item.kind === 'text' ? [item.text] : []));

  it('has them beside it, a right angle as a square', () => {
    expect(texts(triangle).sort()).toEqual(
      ['3.0 u', '36.9°', '4.0 u', '5.0 u', '53.1°', 'A = 6.0 u²', 'P = 12.0 u'].sort(),
    );
    const square = paintMark(triangle).filter((item) => item.kind === 'line' && item.path.length === 3);
    expect(square).toHaveLength(1);
  });

  it('is drawn anew as far as they reach', () => {
    const bounds = markBounds(triangle);
    for (const item of paintMark(triangle)) {
      if (item.kind !== 'text') continue;
      expect(item.x).toBeGreaterThanOrEqual(bounds.x);
      expect(item.x + item.width).toBeLessThanOrEqual(bounds.x + bounds.width);
      expect(item.y).toBeLessThanOrEqual(bounds.y + bounds.height);
    }
  });

  it('is taken from outside only where they are in range', () => {
    expect(isMark(triangle)).toBe(true);
    const gauge = triangle.measures!.gauge;
    for (const measures of [
      { shown: ['colour'], gauge },
      { shown: [], gauge: { ...gauge, per: 0 } },
      { shown: [] },
      { shown: [], gauge: { ...gauge, unit: '' } },
    ])
      // prettier-ignore
      expect(isMark({ ...triangle, measures })).toBe(false);
    expect(isPage(aPage({ gauge }))).toBe(true);
    expect(isPage(aPage({ gauge: null }))).toBe(true);
    expect(isPagePatch({ gauge: { ...gauge, decimals: 9 } })).toBe(false);
  });

  it('shows none again when that is undone, and a page has no scale again', () => {
    const { measures, ...plain } = triangle;
    const page = aPage();
    const state = stateOf({ pages: [page], marks: [plain] });
    const changes = [
      { do: 'patch', mark: 't', set: { measures: measures! } },
      { do: 'patchPage', page: page.id, set: { gauge: measures!.gauge } },
    ] as const;
    const back = invertChanges(state, changes);
    applyChanges(state, changes);
    expect(texts(state.marks.get('t')!)).not.toEqual([]);
    applyChanges(state, back);
    expect(texts(state.marks.get('t')!)).toEqual([]);
    expect(state.pages.get(page.id)!.gauge).toBeNull();
  });
});
