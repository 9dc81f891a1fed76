import type { Checks } from '../checks/fields.js';
import { hasExactly, isRecord } from '../checks/fields.js';
import { isFlag, isId, isNumberIn, MAX_COORDINATE, oneOf } from '../marks/fields.js';
import { UNITS_PER_MM } from '../pages/page.js';

/** What an edge is marked off in; `page` is the page's own scale, such as a map's. */
export const EDGE_UNITS = ['mm', 'cm', 'inch', 'page'] as const;
export type EdgeUnit = (typeof EDGE_UNITS)[number];

/** Where an instrument lies: its zero, corner, middle or point, page units; turned clockwise, degrees. */
interface Lain {
  page: string;
  x: number;
  y: number;
  /** 0 to 360. */
  turn: number;
}

export interface Ruler extends Lain {
  kind: 'ruler';
  /** Of its scale, page units. */
  length: number;
  /** Of its upper and lower edge. */
  units: readonly [EdgeUnit, EdgeUnit];
  /** Whether lines along it go from mark to mark. */
  stepped: boolean;
}

/** Its right angle lies at its place; one side to the right of it, the other one up. */
export interface SetSquare extends Lain {
  /** By its smallest angle. */
  kind: 'square45' | 'square30';
  /** The longer of the sides at the right angle, page units. */
  length: number;
  unit: EdgeUnit;
  stepped: boolean;
  /** Turned over. */
  flip: boolean;
}

export interface Protractor extends Lain {
  kind: 'protractor';
  full: boolean;
  radius: number;
  /** The angle that its arm shows, degrees counterclockwise from its base line. */
  arm: number;
}

/** The point lies at its place, the pencil in the direction of its turn. */
export interface Compasses extends Lain {
  kind: 'compasses';
  radius: number;
}

/** One point lies at its place, the other one in the direction of its turn. */
export interface Dividers extends Lain {
  kind: 'dividers';
  /** From point to point, page units. */
  radius: number;
}

/** What lies on a page to draw and measure with. It is no mark: it is never exported. */
export type Instrument = Ruler | SetSquare | Protractor | Compasses | Dividers;
export type InstrumentKind = Instrument['kind'];

export const INSTRUMENT_KINDS = [
  'ruler',
  'square45',
  'square30',
  'protractor',
  'compasses',
  'dividers',
] as const satisfies readonly InstrumentKind[];

const mm = (length: number) => length * UNITS_PER_MM;

/** Sizes, page units: none is too small to be held, none larger than a page can be. */
export const SIZES = {
  ruler: { least: mm(50), most: mm(2000), usual: mm(150) },
  square: { least: mm(50), most: mm(1000), usual: mm(100) },
  protractor: { least: mm(25), most: mm(500), usual: mm(50) },
  opening: { least: mm(1), most: mm(2000), usual: mm(30) },
} as const;

const isSize = ({ least, most }: { least: number; most: number }) => {
  return (value: unknown) => isNumberIn(value, least, most);
};

const LAIN: Checks = {
  kind: () => true,
  page: isId,
  x: (value) => isNumberIn(value, -MAX_COORDINATE, MAX_COORDINATE),
  y: (value) => isNumberIn(value, -MAX_COORDINATE, MAX_COORDINATE),
  turn: (value) => isNumberIn(value, 0, 360),
};

const isUnit = oneOf(EDGE_UNITS);

const SQUARE: Checks = { ...LAIN, length: isSize(SIZES.square), unit: isUnit, stepped: isFlag, flip: isFlag };
const POINTED: Checks = { ...LAIN, radius: isSize(SIZES.opening) };

const CHECKS: Record<InstrumentKind, Checks> = {
  ruler: {
    ...LAIN,
    length: isSize(SIZES.ruler),
    units: (value) => Array.isArray(value) && value.length === 2 && value.every(isUnit),
    stepped: isFlag,
  },
  square45: SQUARE,
  square30: SQUARE,
  protractor: {
    ...LAIN,
    full: isFlag,
    radius: isSize(SIZES.protractor),
    arm: (value) => isNumberIn(value, 0, 360),
  },
  compasses: POINTED,
  dividers: POINTED,
};

/** Whether a value from outside is a list of instruments, each kind at most once, all in range. */
export function areInstruments(value: unknown): value is readonly Instrument[] {
  if (!Array.isArray(value) || value.length > INSTRUMENT_KINDS.length) return false;
  const kinds = value.map((each: unknown) => (isRecord(each) ? each.kind : undefined));
  return new Set(kinds).size === kinds.length && value.every(isInstrument);
}

function isInstrument(value: unknown): boolean {
  if (!isRecord(value)) return false;
  const kind = INSTRUMENT_KINDS.find((each) => each === value.kind);
  return kind !== undefined && hasExactly(value, CHECKS[kind]);
}
