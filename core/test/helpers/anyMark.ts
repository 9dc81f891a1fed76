import fc from 'fast-check';
import type { Mark, MarkKind, TextPart } from '../../src/index.js';
import {
  ALIGNS,
  COURSES,
  DASHES,
  FONTS,
  FORMS,
  HEADS,
  LISTS,
  LOOKS,
  NATURES,
  STAMPS,
} from '../../src/index.js';
import { common } from './marks.js';

const hundredths = (min: number, max: number) =>
  fc.integer({ min: Math.round(min * 100), max: Math.round(max * 100) }).map((value) => value / 100);
const place = hundredths(-3000, 3000);
/** Sides from the thinnest that is allowed to several pages. */
const side = fc.oneof(hundredths(0.1, 4), hundredths(4, 900));
const width = fc.oneof(hundredths(0.5, 8), hundredths(8, 200));
const colour = fc
  .tuple(fc.nat(255), fc.nat(255), fc.nat(255))
  .map((parts) => `#${parts.map((part) => part.toString(16).padStart(2, '0')).join('')}`);
const part = hundredths(0, 1);
const opacity = hundredths(0.05, 1);
const rotation = fc.oneof(fc.constantFrom(0, 90, 180, -90), hundredths(-360, 360));
const words = (max: number, min = 0) =>
  fc.string({ minLength: min, maxLength: max, unit: fc.constantFrom(...'abc Wij.gÄ\n') });
const orNull = <T>(of: fc.Arbitrary<T>) => fc.option(of, { nil: null });

const box = { x: place, y: place, width: side, height: side, rotation };
const lineStyle = fc.record({
  line: orNull(colour),
  width,
  dash: fc.constantFrom(...DASHES),
  fill: orNull(colour),
  opacity,
});
const points = fc
  .array(fc.tuple(place, place, fc.integer({ min: 0, max: 1000 }), fc.nat(5000)), {
    minLength: 1,
    maxLength: 12,
  })
  .map((all) => all.flatMap(([x, y, pressure, time]) => [x, y, pressure / 1000, time]));
const corners = (min: number, max: number) =>
  fc.array(fc.tuple(place, place), { minLength: min, maxLength: max }).map((all) => all.flat());

export const anyTextStyle = fc.record({
  font: fc.constantFrom(...FONTS),
  size: hundredths(4, 120),
  colour,
  bold: fc.boolean(),
  italic: fc.boolean(),
  underline: fc.boolean(),
  background: orNull(colour),
  align: fc.constantFrom(...ALIGNS),
  list: fc.constantFrom(...LISTS),
});
const partLook = fc.record(
  {
    bold: fc.boolean(),
    italic: fc.boolean(),
    underline: fc.boolean(),
    colour: fc.oneof(fc.constantFrom('#d55e00', '#000000'), colour),
    scale: fc.oneof(fc.constantFrom(1, 1.25), hundredths(0.1, 10)),
  },
  { requiredKeys: [] },
);

/** Parts of a text of up to `length` letters, one after the other. */
export function anyParts(length: number): fc.Arbitrary<TextPart[]> {
  return fc
    .array(fc.tuple(fc.nat({ max: 4 }), fc.integer({ min: 1, max: 12 }), partLook), { maxLength: 6 })
    .map((all) => {
      const parts: TextPart[] = [];
      for (const [gap, wide, look] of all) {
        const from = (parts.at(-1)?.to ?? 0) + gap;
        if (from + wide <= length) parts.push({ from, to: from + wide, ...look });
      }
      return parts;
    });
}

/** A closed outline of quadratic curves: a beginning, and a control and an end of each. */
const ring = fc
  .tuple(corners(1, 1), fc.array(corners(2, 2), { minLength: 1, maxLength: 3 }))
  .map(([begin, curves]) => [...begin, ...curves.flat()]);

const FIELDS: Record<MarkKind, fc.Arbitrary<object>> = {
  stroke: fc.record({
    points,
    pressure: fc.boolean(),
    style: fc.record({ nature: fc.constantFrom(...NATURES), colour, width, opacity }),
  }),
  text: fc.record({
    x: place,
    y: place,
    width: side,
    rotation,
    text: words(60, 1),
    parts: anyParts(70),
    style: anyTextStyle,
  }),
  formula: fc.record({
    tex: words(40, 1),
    outlines: fc.array(
      fc.record({ rings: fc.array(ring, { minLength: 1, maxLength: 3 }), colour: orNull(colour) }),
      { minLength: 1, maxLength: 2 },
    ),
    style: fc.record({ colour, opacity }),
  }),
  plot: fc.record({
    ...box,
    recipe: words(40, 1),
    drawing: fc.record({
      width: side,
      height: side,
      parts: fc.array(
        fc.oneof(
          fc.record({
            line: corners(2, 6),
            colour,
            width: fc.constantFrom(1, 2.5),
            dash: fc.constantFrom(0, 4),
          }),
          fc.record({ rings: fc.array(ring, { minLength: 1, maxLength: 3 }), colour, opacity }),
        ),
        { minLength: 1, maxLength: 4 },
      ),
    }),
    style: fc.record({ opacity }),
  }),
  shape: fc.record({
    ...box,
    flip: fc.boolean(),
    form: fc.constantFrom(...FORMS),
    sides: fc.integer({ min: 3, max: 12 }),
    style: lineStyle,
  }),
  path: fc.record({
    course: fc.constantFrom(...COURSES),
    points: corners(2, 6),
    closed: fc.boolean(),
    heads: fc.constantFrom(...HEADS),
    from: fc.constant(null),
    to: orNull(fc.record({ mark: fc.constant('other'), x: part, y: part })),
    style: lineStyle,
  }),
  stamp: fc.record({
    ...box,
    flip: fc.boolean(),
    stamp: fc.constantFrom(...STAMPS),
    label: fc.constantFrom('', '1', '12', '9999'),
    style: fc.record({ colour }),
  }),
  note: fc.record({
    ...box,
    text: words(80),
    style: fc.record({ colour, font: fc.constantFrom(...FONTS) }),
  }),
  picture: fc.record({
    ...box,
    material: fc.constant('picture'),
    crop: fc.record({
      x: part,
      y: part,
      width: fc.integer({ min: 1, max: 1000 }).map((value) => value / 1000),
      height: fc.integer({ min: 1, max: 1000 }).map((value) => value / 1000),
    }),
    flip: fc.boolean(),
    style: fc.record({ opacity }),
  }),
  patch: fc.record({ ...box, style: fc.record({ colour }) }),
  quote: fc.record({
    exact: words(20, 1),
    prefix: words(10),
    suffix: words(10),
    start: fc.nat(10_000),
    look: fc.constantFrom(...LOOKS),
    rects: fc
      .array(fc.tuple(place, place, side, side), { minLength: 1, maxLength: 4 })
      .map((all) => all.flat()),
    style: fc.record({ colour, opacity }),
  }),
  fill: fc.record({
    rings: fc.array(corners(3, 6), { minLength: 1, maxLength: 3 }),
    style: fc.record({ colour, opacity }),
  }),
};

export const KINDS = Object.keys(FIELDS) as MarkKind[];

/** Any mark of a kind that may be put on a page. */
export function anyMark(kind: MarkKind): fc.Arbitrary<Mark> {
  return FIELDS[kind].map((fields) => ({ ...common(), kind, ...fields }) as Mark);
}
