import { WAYS } from '../live/copies.js';
import { POLL_KINDS } from '../live/poll.js';
import { DASHES } from '../marks/lineStyle.js';
import { FIGURES } from '../marks/measures.js';
import { COURSES, HEADS } from '../marks/path/pathMark.js';
import { LOOKS } from '../marks/quote/quoteMark.js';
import { FORMS } from '../marks/shape/shapeMark.js';
import { STAMPS } from '../marks/stamp/stampMark.js';
import { NATURES } from '../marks/stroke/strokeMark.js';
import { ALIGNS, LISTS } from '../marks/text/textMark.js';
import { RULINGS } from '../pages/page.js';
import { FONTS } from '../text/fonts.js';
import { ARCHIVE } from './lessonArchive.js';

type Schema = Readonly<Record<string, unknown>>;

const DRAFT = 'https://json-schema.org/draft/2020-12/schema';
const string = { type: 'string' };
const number = { type: 'number' };
const integer = { type: 'integer' };
const flag = { type: 'boolean' };
const time = { type: 'integer', minimum: 0, description: 'Milliseconds since 1970-01-01 UTC.' };
const id = { type: 'string', pattern: '^[\\w-]{1,64}$' };
const colour = { type: 'string', pattern: '^#[0-9a-f]{6}$' };
const opacity = { type: 'number', minimum: 0.05, maximum: 1 };
const share = { type: 'number', minimum: 0, maximum: 1 };
const path = { type: 'string', pattern: '^[\\w-]+(/[\\w-]+)*\\.[a-z0-9]+$' };
const oneOf = (values: readonly string[]): Schema => ({ enum: values });
const orNull = (schema: Schema): Schema => ({ anyOf: [schema, { type: 'null' }] });
const listOf = (items: Schema, set: Schema = {}): Schema => ({ type: 'array', items, ...set });

/** An object that has all of these fields, may have the optional ones, and no others. */
function shape(
  fields: Readonly<Record<string, unknown>>,
  optional: Readonly<Record<string, unknown>> = {},
): Schema {
  return {
    type: 'object',
    properties: { ...fields, ...optional },
    required: Object.keys(fields),
    additionalProperties: false,
  };
}

const SHARED = {
  id,
  page: id,
  author: id,
  space: {
    type: 'string',
    pattern: '^(class|(table|student):[\\w-]{1,64})$',
    description: 'Whose mark it is: the class, a table (group), or the copy of one student.',
  },
  order: { type: 'string', description: 'Fractional index: later marks lie on top.' },
  locked: flag,
  group: orNull(id),
  alt: { ...orNull(string), description: 'What it shows, for those who cannot see it.' },
  createdAt: { ...number, minimum: 0 },
};
const SHARED_OPTIONAL = {
  pane: { ...integer, description: 'The part of a shown screen that it was made on.' },
  credit: { ...string, description: 'Who made it, where that was elsewhere.' },
  rule: orNull({
    ...shape(
      {},
      {
        tap: shape({ steps: listOf({ type: 'object' }), once: flag }, { is: oneOf(['right', 'wrong']) }),
        moves: shape({ movement: { type: 'object' }, copies: flag }),
        takes: shape({ things: listOf(id), sendsBack: flag, snaps: flag }, { stack: oneOf(['put', 'most']) }),
        fill: { type: 'object' },
        pair: { type: 'object' },
        trace: { type: 'object' },
        sets: { type: 'array', items: string },
        of: { type: 'array', items: id },
      },
    ),
    description: 'What it does in a class, and what may be done with it.',
  }),
  hidden: { ...flag, description: 'Whether a class does not see it until something shows it.' },
  folded: { ...orNull(id), description: 'The idea of a map under which it is folded away.' },
  standIn: {
    ...shape({ for: id, tries: integer, taps: integer }, { copy: flag, by: id, at: id, since: integer }),
    description: 'What it stands for, where answering has made it.',
  },
};
const turned = {
  x: number,
  y: number,
  width: number,
  height: number,
  rotation: { ...number, description: 'Degrees, clockwise about the middle.' },
};
const lineStyle = shape({
  line: orNull(colour),
  width: number,
  dash: oneOf(DASHES),
  fill: orNull(colour),
  opacity,
});
const anchor = orNull(shape({ mark: id, x: share, y: share }));
const font = oneOf(FONTS);
const textPart = shape(
  { from: integer, to: integer },
  { bold: flag, italic: flag, underline: flag, colour, scale: number },
);

function mark(kind: string, style: Schema, fields: object, optional: object = {}): Schema {
  return shape({ ...SHARED, kind: { const: kind }, style, ...fields }, { ...SHARED_OPTIONAL, ...optional });
}

const gauge = {
  ...shape({ unit: string, per: number, decimals: integer, comma: flag }),
  description: 'How lengths are said; `per` is page units to one of the unit.',
};
const measures = shape({ shown: listOf(oneOf(FIGURES)), gauge });

const MARKS: readonly Schema[] = [
  mark('stroke', shape({ nature: oneOf(NATURES), colour, width: number, opacity }), {
    points: {
      ...listOf(number, { minItems: 4 }),
      description: 'Flat: x, y, pressure (0 to 1), milliseconds since the first point.',
    },
    pressure: { ...flag, description: 'Whether the pressure was measured; otherwise it stands for speed.' },
  }),
  mark(
    'text',
    shape({
      font,
      size: number,
      colour,
      bold: flag,
      italic: flag,
      underline: flag,
      background: orNull(colour),
      align: oneOf(ALIGNS),
      list: oneOf(LISTS),
    }),
    { x: number, y: number, width: number, rotation: number, text: string },
    { parts: listOf(textPart) },
  ),
  mark('shape', lineStyle, { ...turned, flip: flag, form: oneOf(FORMS), sides: integer }, { measures }),
  mark(
    'path',
    lineStyle,
    {
      course: oneOf(COURSES),
      points: listOf(number, { minItems: 4 }),
      closed: flag,
      heads: oneOf(HEADS),
      from: anchor,
      to: anchor,
    },
    { measures },
  ),
  mark('stamp', shape({ colour }), { ...turned, flip: flag, stamp: oneOf(STAMPS), label: string }),
  mark('note', shape({ colour, font }), { ...turned, text: string }),
  mark('picture', shape({ opacity }), {
    ...turned,
    flip: flag,
    material: id,
    crop: shape({ x: share, y: share, width: share, height: share }),
  }),
  mark('patch', shape({ colour }), turned),
  mark('quote', shape({ colour, opacity }), {
    exact: string,
    prefix: string,
    suffix: string,
    start: number,
    look: oneOf(LOOKS),
    rects: listOf(number, { minItems: 4 }),
  }),
  mark('formula', shape({ colour, opacity }), {
    tex: string,
    outlines: listOf(
      shape({
        rings: listOf(listOf(number, { minItems: 6 })),
        colour: { anyOf: [colour, { type: 'null' }] },
      }),
    ),
  }),
  mark('plot', shape({ opacity }), {
    ...turned,
    recipe: string,
    drawing: shape({
      width: number,
      height: number,
      parts: listOf({
        anyOf: [
          shape({ line: listOf(number, { minItems: 4 }), colour, width: number, dash: number }),
          shape({ rings: listOf(listOf(number, { minItems: 6 })), colour, opacity: number }),
        ],
      }),
    }),
  }),
  mark('fill', shape({ colour, opacity }), {
    rings: listOf(listOf(number, { minItems: 6 }), { minItems: 1 }),
  }),
];

const surface = {
  anyOf: [
    shape(
      { kind: { const: 'blank' }, colour, ruling: oneOf(RULINGS), spacing: number },
      { boundless: { const: true }, line: shape({ from: number, to: number, step: number }) },
    ),
    shape({ kind: { const: 'web' }, material: id }),
    shape({
      kind: { const: 'view' },
      pictures: listOf(shape({ material: id, x: number, y: number }, { scale: number })),
    }),
    shape({ kind: { const: 'media' }, material: id, form: oneOf(['sound', 'video']) }),
    shape({ kind: { const: 'picture' }, material: id }),
    shape({ kind: { const: 'pdf' }, material: id, index: integer }),
  ],
};
const page = shape(
  {
    id,
    order: string,
    title: string,
    width: number,
    height: number,
    surface,
    removed: flag,
  },
  { gauge: orNull(gauge) },
);

/** A page of a lesson archive, as JSON Schema (draft 2020-12). Lengths are CSS pixels at 100 %, 96 to the inch, y down. */
export const PAGE_SCHEMA: Schema = {
  $schema: DRAFT,
  $id: 'urn:doodla:lesson-archive:1:page',
  title: 'A page of a lesson with what is on it',
  ...shape({ page, marks: listOf({ anyOf: MARKS }) }),
};

const student = shape({ id, name: string, colour, seat: integer, joinedAt: time });
const poll = shape({
  poll: shape({
    id,
    kind: oneOf(POLL_KINDS),
    question: string,
    options: listOf(string),
    anonymous: flag,
    hidden: flag,
  }),
  askedAt: time,
  closedAt: orNull(time),
  answers: listOf(shape({ student: id, value: { type: ['number', 'string'] }, at: time })),
});
const taught = shape({
  id,
  title: string,
  openedAt: time,
  endedAt: orNull(time),
  page: id,
  rules: orNull({ type: 'object' }),
  ways: orNull({ type: 'object', additionalProperties: oneOf(WAYS.filter((way) => way !== 'class')) }),
  tables: orNull(listOf(shape({ id, students: listOf(id) }))),
  ideas: orNull({ type: 'object' }),
  students: listOf(student),
  chat: listOf(shape({ author: id, name: orNull(string), words: string, at: time })),
  notes: orNull({ type: 'object' }),
  polls: listOf(poll),
  votes: listOf(shape({ mark: id, page: id, student: id })),
  pages: listOf(path),
});
const file = shape({
  id,
  kind: oneOf(['pdf', 'web', 'media', 'picture']),
  path,
  sha256: { type: 'string', pattern: '^[0-9a-f]{64}$' },
  name: string,
  type: string,
  pageCount: integer,
  notes: orNull(listOf(string)),
  class: orNull(id),
  author: orNull(id),
  createdAt: time,
});

/** What a lesson archive says is in it (`lesson.json`), as JSON Schema (draft 2020-12). */
export const HEAD_SCHEMA: Schema = {
  $schema: DRAFT,
  $id: 'urn:doodla:lesson-archive:1',
  title: 'A lesson, its classes and the files of both',
  ...shape({
    format: { const: ARCHIVE.format },
    version: { const: ARCHIVE.version },
    madeAt: time,
    title: string,
    tags: listOf(string),
    teacher: shape({ id, name: string }),
    pages: listOf(path),
    classes: listOf(taught),
    files: listOf(file),
  }),
};
