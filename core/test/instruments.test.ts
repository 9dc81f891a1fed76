import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { packPoint } from '../src/index.js';
import { SnapField } from '../src/construct/index.js';
import type { Compasses, Instrument, Protractor, Ruler, SetSquare } from '../src/instruments/index.js';
import {
  angleOf,
  arcOf,
  areInstruments,
  armTo,
  CARD,
  carried,
  CircleGuide,
  EdgeGuide,
  inkGuideAt,
  laidOnCorner,
  onInstrument,
  onPage,
  openedTo,
  pixelsPerMm,
  protractorReadings,
  scaleMarks,
  SIZES,
  steppedOn,
  straightEdges,
  trueScale,
  turnedBy,
  turnReading,
  USUAL_PIXELS_PER_MM,
  withLength,
} from '../src/instruments/index.js';
import type { Point } from '../src/construct/index.js';
import { aStroke } from './helpers/marks.js';

const CM = { unit: 'cm', per: 960 / 25.4, decimals: 1, comma: false };
const lain = { page: 'p1', x: 100, y: 200, turn: 0 };
const ruler: Ruler = { ...lain, kind: 'ruler', length: 600, units: ['cm', 'mm'], stepped: false };
const square: SetSquare = { ...lain, kind: 'square30', length: 300, unit: 'cm', stepped: false, flip: false };
const protractor: Protractor = { ...lain, kind: 'protractor', full: false, radius: 180, arm: 60 };
const compasses: Compasses = { ...lain, kind: 'compasses', radius: 90 };

const far = (a: Point, b: Point) => Math.hypot(a[0] - b[0], a[1] - b[1]);
const place = fc.tuple(fc.integer({ min: -900, max: 900 }), fc.integer({ min: -900, max: 900 })) as fc.Arbitrary<Point>; // prettier-ignore
const turn = fc.integer({ min: 0, max: 359 });
/** Drawn with an instrument, as it is stored. */
const inkOf = (points: readonly Point[]) => aStroke({ points: points.flatMap(([x, y]) => packPoint(x, y, 0.65, 0)) }); // prettier-ignore

describe('scales', () => {
  it('have a mark each millimetre, 96 / 25.4 page units apart (CSS Values 4: 1 in = 25.4 mm = 96 px)', () => {
    const marks = scaleMarks('cm', (150 * 96) / 25.4, CM);
    expect(marks).toHaveLength(151);
    expect(marks[10]).toEqual({ at: expect.closeTo(37.7953, 4) as number, level: 3, label: '1' });
    expect(marks[5]!.level).toBe(2);
    expect(marks[4]!.level).toBe(0);
    expect(marks.at(-1)).toEqual({ at: expect.closeTo(566.929, 3) as number, level: 3, label: '15' });
    expect(scaleMarks('mm', 100, CM)[20]!.label).toBe('20');
  });

  it('halve inches down to sixteenths, as rulers do (common practice, no source)', () => {
    const marks = scaleMarks('inch', 192, CM);
    expect(marks).toHaveLength(33);
    expect([0, 1, 2, 4, 8, 16].map((n) => marks[n]!.level)).toEqual([3, 0, 1, 2, 2, 3]);
    expect(marks[16]).toEqual({ at: 96, level: 3, label: '1' });
  });

  it('follow the page where it has a scale of its own, by round numbers that are not too close', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 5000, noNaN: true }), (per) => {
        const marks = scaleMarks('page', 3000, { unit: 'km', per, decimals: 1, comma: true });
        const step = marks[1]!.at;
        expect(step).toBeGreaterThan(3.49);
        expect(step).toBeLessThan(3.5 * 10.01);
        const lead = Number((step / per).toExponential(6).split('e')[0]);
        expect([1, 2, 5].some((round) => Math.abs(lead - round) < 1e-4)).toBe(true);
        const labelled = marks.filter(({ label }) => label !== undefined).slice(1);
        for (const { at, label } of labelled)
          expect(Number(label!.replace(',', '.')) * per).toBeCloseTo(at, 3);
      }),
    );
  });

  it('are as long as those of a ruler of wood once a card fits its outline (ISO/IEC 7810 ID-1: 85.60 mm × 53.98 mm)', () => {
    expect([CARD.width, CARD.height]).toEqual([85.6, 53.98]);
    expect(pixelsPerMm(428)).toBeCloseTo(5, 10);
    expect(trueScale(USUAL_PIXELS_PER_MM)).toBe(1);
    // 1 mm of the page on a display with 5 pixels to a millimetre.
    expect((96 / 25.4) * trueScale(pixelsPerMm(428))).toBeCloseTo(5, 10);
  });
});

describe('carrying and turning', () => {
  it('keeps a point under one finger, and both ends of a stiff rod under two', () => {
    fc.assert(
      fc.property(place, place, place, turn, (a, b, to, by) => {
        fc.pre(far(a, b) > 20);
        const one = carried({ ...ruler, turn: 7 }, [a], [to]);
        expect(far(onPage(one, onInstrument({ ...ruler, turn: 7 }, a)), to)).toBeLessThan(1e-6);
        const angle = ((by + 0.5) * Math.PI) / 180;
        const end: Point = [
          to[0] + (b[0] - a[0]) * Math.cos(angle) - (b[1] - a[1]) * Math.sin(angle),
          to[1] + (b[0] - a[0]) * Math.sin(angle) + (b[1] - a[1]) * Math.cos(angle),
        ];
        const two = carried({ ...ruler, turn: 7 }, [a, b], [to, end]);
        const turned = (((two.turn - 7 - by - 0.5) % 360) + 540) % 360 - 180; // prettier-ignore
        // Only near a usual angle it turns a little farther.
        expect(Math.abs(turned)).toBeLessThan(1.2001);
        if (Math.abs(turned) < 1e-3)
          expect(far(onPage(two, onInstrument({ ...ruler, turn: 7 }, a)), to)).toBeLessThan(0.05);
      }),
    );
  });

  it('rests at usual angles, and reads and takes angles counterclockwise from level', () => {
    expect(turnedBy(ruler, [200, 200], [200, 101]).turn).toBe(315);
    expect(angleOf({ ...ruler, turn: 315 })).toBe(45);
    expect(angleOf({ ...ruler, turn: 135 })).toBe(45);
    expect(angleOf({ ...square, turn: 135 })).toBe(225);
    expect(turnReading({ ...ruler, turn: 170 }, 30)).toBe(150);
    expect(turnReading({ ...ruler, turn: 300 }, 30)).toBe(330);
    expect(turnReading(square, 90)).toBe(270);
  });

  it('stays within what can be held', () => {
    expect(withLength(ruler, 1).length).toBe(SIZES.ruler.least);
    expect(withLength(ruler, 1e9).length).toBe(SIZES.ruler.most);
    // At least 5 cm.
    expect(SIZES.ruler.least).toBeCloseTo((50 * 96) / 25.4, 6);
    expect(armTo(protractor, [100 + 50, 200 - 50]).arm).toBe(45);
    expect(armTo(protractor, [100 + 50, 200 + 10]).arm).toBe(0);
    expect(armTo({ ...protractor, full: true }, [100, 250]).arm).toBe(270);
  });
});

describe('ink along an edge', () => {
  it('is on it however the hand shakes, and goes as far as the hand did', () => {
    fc.assert(
      fc.property(
        turn,
        fc.array(fc.tuple(fc.integer({ min: -50, max: 700 }), fc.integer({ min: -60, max: 60 })), {
          minLength: 2,
          maxLength: 40,
        }),
        (angle, hand) => {
          // prettier-ignore
          const lies = { ...ruler, turn: angle };
          const [edge] = straightEdges(lies, CM);
          const guide = new EdgeGuide(edge!, onPage(lies, hand[0]!));
          for (const at of hand) guide.follow(onPage(lies, at));
          const [a, b] = guide.drawn().map((point) => onInstrument(lies, point)) as [Point, Point];
          expect(Math.abs(a[1])).toBeLessThan(1e-6);
          expect(Math.abs(b[1])).toBeLessThan(1e-6);
          const along = hand.map(([x]) => Math.min(612, Math.max(-12, x)));
          expect(Math.min(a[0], b[0])).toBeCloseTo(Math.min(...along), 6);
          expect(Math.max(a[0], b[0])).toBeCloseTo(Math.max(...along), 6);
        },
      ),
    );
  });

  it('goes from mark to mark where that is wanted', () => {
    const [edge] = straightEdges({ ...ruler, stepped: true }, CM);
    const guide = new EdgeGuide(edge!, [100 + 39, 199]);
    guide.follow([100 + 300, 210]);
    const [a, b] = guide.drawn() as [Point, Point];
    // 10.3 mm and 79.4 mm.
    expect(a[0] - 100).toBeCloseTo((10 * 96) / 25.4, 6);
    expect(b[0] - 100).toBeCloseTo((79 * 96) / 25.4, 6);
  });

  it('begins only near an edge: of a ruler both, of a set square all three, of a protractor its arm', () => {
    const near = (instrument: Instrument, at: Point) =>
      inkGuideAt([instrument], onPage(instrument, at), 8, CM);
    expect(near(ruler, [50, -7])).toBeDefined();
    expect(near(ruler, [50, 50])).toBeUndefined();
    expect(near(ruler, [50, 104])).toBeDefined();
    expect(near(ruler, [700, 0])).toBeUndefined();
    // The hypotenuse of a 30° square falls by tan 30°: half way it is half as high as the shorter side.
    expect(near(square, [150, -150 * Math.tan(Math.PI / 6)])).toBeDefined();
    expect(near(square, [-3, -100])).toBeDefined();
    expect(near({ ...square, flip: true }, [-150, 3])).toBeDefined();
    expect(near({ ...square, flip: true }, [150, 3])).toBeUndefined();
    expect(near(protractor, [60 * 0.5, -60 * Math.sqrt(0.75)])).toBeDefined();
    expect(near(compasses, [0, 0])).toBeUndefined();
  });
});

describe('compasses', () => {
  it('keep their radius and draw no farther than once round, whichever way the hand goes', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -100, max: 100 }), { minLength: 1, maxLength: 30 }), (steps) => {
        const guide = new CircleGuide(compasses);
        let [angle, least, most] = [0, 0, 0];
        for (const step of steps) {
          angle += step;
          [least, most] = [Math.min(least, angle), Math.max(most, angle)];
          guide.follow(onPage({ ...compasses, turn: angle }, [300, 0]));
        }
        const points = guide.drawn();
        for (const point of points) expect(far(point, [100, 200])).toBeCloseTo(90, 6);
        const length = points.slice(1).reduce((sum, point, i) => sum + far(point, points[i]!), 0);
        const sweep = most - least >= 356 ? 360 : most - least;
        expect(length).toBeGreaterThan(((sweep * Math.PI) / 180) * 90 - 0.1);
        expect(length).toBeLessThan(((sweep * Math.PI) / 180) * 90 + 0.1);
      }),
    );
  });

  it('draw chords so short that none is more than 0.03 off the circle', () => {
    const points = arcOf({ ...compasses, radius: 800 }, 360);
    for (const [i, point] of points.slice(1).entries()) {
      const middle: Point = [(point[0] + points[i]![0]) / 2, (point[1] + points[i]![1]) / 2];
      expect(800 - far(middle, [100, 200])).toBeLessThan(0.0301);
    }
    expect(far(points[0]!, points.at(-1)!)).toBeLessThan(1e-6);
  });

  it('come back to where they began after six steps round their own circle (Euclid, Elements IV.15)', () => {
    const marks = [inkOf(arcOf(compasses, 360))];
    // The point is put near the circle, as by hand, and then near where the last arc crosses it.
    const first = new SnapField(marks).place([192, 198], 8)!;
    expect(first.kind).toBe('on');
    const begin = Math.atan2(first.at[1] - 200, first.at[0] - 100);
    let { at } = first;
    for (let step = 1; step <= 6; step++) {
      marks.push(inkOf(arcOf({ ...compasses, x: at[0], y: at[1] }, 360)));
      const angle = begin + (step * Math.PI) / 3;
      const hand: Point = [100 + 90 * Math.cos(angle) + 2, 200 + 90 * Math.sin(angle) - 2];
      const laid = new SnapField(marks).place(hand, 8)!;
      expect(['crossing', 'centre']).toContain(laid.kind);
      at = laid.at;
    }
    expect(far(at, first.at)).toBeLessThan(0.5);
  });

  it('find the top of an equilateral triangle where two of them cross (Elements I.1)', () => {
    const other = { ...compasses, x: 190 };
    const field = new SnapField([inkOf(arcOf(compasses, 360)), inkOf(arcOf(other, 360))]);
    const top = field.place([143, 125], 6);
    expect(top?.kind).toBe('crossing');
    expect(far(top!.at, [145, 200 - 90 * Math.sqrt(0.75)])).toBeLessThan(0.05);
    expect(field.place([100, 200], 3)).toEqual({ kind: 'centre', at: [expect.closeTo(100, 1), expect.closeTo(200, 1)] }); // prettier-ignore
    const on = field.place([100, 293], 6);
    expect(on?.kind).toBe('on');
    expect(far(on!.at, [100, 290])).toBeLessThan(0.05);
  });

  it('meet ends of arcs, and lines that were drawn along a ruler', () => {
    const arc = inkOf(arcOf(compasses, 100));
    const line = inkOf([[60, 245], [300, 245]]); // prettier-ignore
    const field = new SnapField([arc, line]);
    expect(far(field.place([191, 201], 5)!.at, [190, 200])).toBeLessThan(0.05);
    const crossing = field.place([176, 246], 5)!;
    expect(crossing.kind).toBe('crossing');
    expect(far(crossing.at, [100 + Math.sqrt(90 ** 2 - 45 ** 2), 245])).toBeLessThan(0.05);
    // What a hand has drawn is no line: nothing is met there.
    const wavy = inkOf(Array.from({ length: 40 }, (_, i): Point => [i * 6, 40 + 3 * Math.sin(i)]));
    expect(new SnapField([wavy]).place([120, 41], 5)).toBeUndefined();
  });

  it('open to a point, and dividers carry a length on and on', () => {
    expect(openedTo(compasses, [100, 320])).toMatchObject({ radius: 120, turn: 90 });
    let dividers = { ...compasses, kind: 'dividers' as const, turn: 30, radius: 37.8 };
    for (let n = 0; n < 10; n++) dividers = steppedOn(dividers);
    expect(far([dividers.x, dividers.y], [100, 200])).toBeCloseTo(378, 6);
  });
});

describe('a protractor', () => {
  const edges: [Point, Point][] = [
    // A triangle with the sides 3, 4, 5: its angles are 36.87°, 53.13° and 90° (Pythagoras' smallest).
    [[100, 200], [500, 200]],
    [[100, 200], [500, -100]],
    [[500, 200], [500, -100]],
  ]; // prettier-ignore

  it('reads the lines that leave its middle', () => {
    expect(protractorReadings(protractor, edges)).toEqual([expect.closeTo(36.87, 2)]);
    const across: [Point, Point][] = [[[0, 100], [200, 300]]]; // prettier-ignore
    expect(protractorReadings(protractor, across)).toEqual([expect.closeTo(135, 2)]);
    expect(protractorReadings({ ...protractor, full: true }, across)).toEqual([expect.closeTo(135, 2), expect.closeTo(315, 2)]); // prettier-ignore
    expect(protractorReadings({ ...protractor, x: 300 }, edges)).toEqual([]);
  });

  it('is laid on a corner that is near, with its base line on the edge it nearly lies on', () => {
    const laid = laidOnCorner({ ...protractor, x: 104, y: 197, turn: 355 }, edges, 10);
    expect(laid).toMatchObject({ x: 100, y: 200, turn: 0 });
    expect(laidOnCorner({ ...protractor, x: 505, y: 205, turn: 182 }, edges, 10)).toMatchObject({ x: 500, y: 200, turn: 180 }); // prettier-ignore
    // Turned on purpose, it stays so.
    expect(laidOnCorner({ ...protractor, turn: 60 }, edges, 10).turn).toBe(60);
    expect(laidOnCorner({ ...protractor, x: 300 }, edges, 10).x).toBe(300);
  });
});

describe('what comes from outside', () => {
  it('is a list of instruments, each kind at most once, all of a size that can be', () => {
    const all: Instrument[] = [ruler, square, { ...square, kind: 'square45' }, protractor, compasses];
    expect(areInstruments([])).toBe(true);
    expect(areInstruments(all)).toBe(true);
    const wrong: unknown[] = [
      [ruler, ruler],
      [{ ...ruler, length: 3 }],
      [{ ...ruler, turn: -1 }],
      [{ ...ruler, x: Infinity }],
      [{ ...ruler, units: ['cm'] }],
      [{ ...ruler, units: ['cm', 'yard'] }],
      [{ ...ruler, more: 1 }],
      [{ ...compasses, kind: '__proto__' }],
      [{ ...protractor, arm: 361 }],
      [null],
      {},
      'ruler',
    ];
    for (const each of wrong) expect(areInstruments(each)).toBe(false);
  });
});
