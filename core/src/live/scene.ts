import type { Checks } from '../checks/fields.js';
import { hasExactly, hasOnly, isRecord } from '../checks/fields.js';
import type { Instrument } from '../instruments/instrument.js';
import { areInstruments } from '../instruments/instrument.js';
import { isId, isNumberIn, MAX_COORDINATE } from '../marks/fields.js';
import type { Rect } from '../geometry/rect.js';

export const SPOTLIGHT_SHAPES = ['round', 'rectangle', 'free'] as const;
export type SpotlightShape = (typeof SPOTLIGHT_SHAPES)[number];

/** Something that leads the eye to a part of the page: its box, page units, and who sees it. */
interface Led extends Rect {
  page: string;
  /** Whether the class sees it too. */
  shared: boolean;
}

export interface Spotlight extends Led {
  kind: 'spotlight';
  shape: SpotlightShape;
  /** How dark the rest is, 0.2 to 1. */
  dark: number;
  /** A free shape's corners within the box, each 0 to 1, flat x, y. */
  outline?: readonly number[];
}

/** A sheet over the page; its box is what is still covered. */
export interface Cover extends Led {
  kind: 'cover';
}

/** A glass over its box that shows the box's middle enlarged. */
export interface Magnifier extends Led {
  kind: 'magnifier';
  /** 1.5 to 8. */
  factor: number;
}

/** A region that fills the screen. */
export interface Enlarged extends Led {
  kind: 'enlarged';
}

export type Focus = Spotlight | Cover | Magnifier | Enlarged;
export type FocusKind = Focus['kind'];

export const FACTORS = { least: 1.5, most: 8 } as const;

export interface Timer {
  kind: 'countdown' | 'stopwatch';
  /** Length of a countdown, milliseconds. */
  length: number;
  /** Milliseconds run before it was last started. */
  before: number;
  /** When it was started, by the server's clock; null while it stands still. */
  startedAt: number | null;
  /** Whether it is heard at the end. */
  sound: boolean;
  large: boolean;
}

/** Longest countdown: a school day. */
export const MAX_TIMER_MS = 12 * 3600 * 1000;

/** A second page beside the class's page. */
export interface Split {
  page: string;
  /** Where the divider is, 0.15 to 0.85 of the width. */
  at: number;
}

/** How far a sound or video file has been played, in step for all. */
export interface Playing {
  page: string;
  playing: boolean;
  /** Seconds into the file at the time `at`. */
  position: number;
  /** By the server's clock, milliseconds since 1970-01-01 UTC. */
  at: number;
}

/** The part of the class's page that its teacher sees, page units. */
export interface Sight extends Rect {
  page: string;
}

export interface Turns {
  students: readonly string[];
  at: number;
}

/** What the teacher has set up round the page, the same for everybody in the class. */
export interface Scene {
  focus: Focus | null;
  timer: Timer | null;
  split: Split | null;
  /** What the teacher has laid on pages to draw and measure with, of each kind one at most. */
  instruments: readonly Instrument[];
  playing: Playing | null;
  /** What students keep in sight; null while the teacher sees the whole page. */
  sight: Sight | null;
  /** Patches that have been taken away. */
  uncovered: readonly string[];
  /** Students who may point. */
  pointers: readonly string[];
  /** Whether students may turn pages by themselves. */
  roam: boolean;
  /** Students who answer in turns, and whose turn it is, from 0; null where they need not wait for one another. */
  turns: Turns | null;
}

export const EMPTY_SCENE: Scene = {
  focus: null,
  timer: null,
  split: null,
  instruments: [],
  playing: null,
  sight: null,
  uncovered: [],
  pointers: [],
  roam: false,
  turns: null,
};

const MAX_LISTED = 2000;
const MAX_OUTLINE = 400;

const isFlag = (value: unknown) => typeof value === 'boolean';
const isTime = (value: unknown) => isNumberIn(value, 0, 1e14);
const isPlace = (value: unknown) => isNumberIn(value, -MAX_COORDINATE, MAX_COORDINATE);
const isLength = (value: unknown) => isNumberIn(value, 1, MAX_COORDINATE);
const isIdList = (value: unknown) =>
  Array.isArray(value) && value.length <= MAX_LISTED && value.every((id) => isId(id));

const LED: Checks = {
  kind: () => true,
  page: isId,
  shared: isFlag,
  x: isPlace,
  y: isPlace,
  width: isLength,
  height: isLength,
};

const FOCUS: Record<FocusKind, Checks> = {
  spotlight: {
    ...LED,
    shape: (value) => SPOTLIGHT_SHAPES.includes(value as SpotlightShape),
    dark: (value) => isNumberIn(value, 0.2, 1),
  },
  cover: LED,
  magnifier: { ...LED, factor: (value) => isNumberIn(value, FACTORS.least, FACTORS.most) },
  enlarged: LED,
};

const TIMER: Checks = {
  kind: (value) => value === 'countdown' || value === 'stopwatch',
  length: (value) => isNumberIn(value, 0, MAX_TIMER_MS),
  before: (value) => isNumberIn(value, 0, 1e10),
  startedAt: (value) => value === null || isTime(value),
  sound: isFlag,
  large: isFlag,
};

const SIGHT: Checks = { page: isId, x: isPlace, y: isPlace, width: isLength, height: isLength };

const SCENE: Record<keyof Scene, (value: unknown) => boolean> = {
  focus: (value) => value === null || isFocus(value),
  timer: (value) => value === null || hasExactly(value, TIMER),
  sight: (value) => value === null || hasExactly(value, SIGHT),
  split: (value) =>
    value === null || hasExactly(value, { page: isId, at: (at) => isNumberIn(at, 0.15, 0.85) }),
  instruments: areInstruments,
  playing: (value) =>
    value === null ||
    hasExactly(value, { page: isId, playing: isFlag, position: (at) => isNumberIn(at, 0, 1e6), at: isTime }),
  uncovered: isIdList,
  pointers: isIdList,
  roam: isFlag,
  turns: (value) =>
    value === null ||
    hasExactly(value, {
      students: (ids) => isIdList(ids) && (ids as string[]).length > 0,
      at: (at) => Number.isInteger(at) && isNumberIn(at, 0, MAX_LISTED),
    }),
};

/** Whether a value from outside changes only what there is in a scene, all in range. */
export function isScenePart(value: unknown): value is Partial<Scene> {
  return hasOnly(value, SCENE);
}

function isFocus(value: unknown): boolean {
  if (!isRecord(value)) return false;
  const { kind } = value;
  if (typeof kind !== 'string' || !Object.hasOwn(FOCUS, kind)) return false;
  const checks = FOCUS[kind as FocusKind];
  const { outline, ...rest } = value;
  return (outline === undefined || isOutline(outline)) && hasExactly(rest, checks);
}

function isOutline(value: unknown): boolean {
  return (
    Array.isArray(value) &&
    value.length >= 6 &&
    value.length <= MAX_OUTLINE &&
    value.length % 2 === 0 &&
    value.every((part) => isNumberIn(part, 0, 1))
  );
}
