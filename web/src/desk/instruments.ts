import type { Change, MarkOf, Point, Rect } from '@doodla/core';
import { packPoint, STRIDE } from '@doodla/core';
import type { ClassClient } from '@doodla/core/client';
import type { Instrument, InstrumentKind } from '@doodla/core/instruments';
import { RULER, SIZES } from '@doodla/core/instruments';
import type { Desk } from './desk';
import { pageGauge } from './measures';

export type InstrumentDesk = Pick<Desk, 'isTeacher' | 'mayMeasure' | 'ownInstruments' | 'page' | 'pageId'> & {
  classroom: Pick<ClassClient, 'scene' | 'setScene'> | undefined;
  visible(): Rect;
};

/** Of what is in sight, a new instrument takes at most this part. */
const MOST_SHARE = 0.7;
/** A stroke drawn at once with an instrument is as firm as a slow hand. */
const FIRMNESS = 0.65;

/** What lies on a page, and whether it is one's own to move. */
export interface Lying {
  instrument: Instrument;
  isMine: boolean;
}

/** Where one's own instruments are: a teacher's in the class are the class's. */
function ofClass({ classroom, isTeacher }: InstrumentDesk) {
  return isTeacher ? classroom : undefined;
}

/** One's own instruments, on whichever page. */
export function ownInstruments(desk: InstrumentDesk): readonly Instrument[] {
  if (!desk.mayMeasure) return [];
  return ofClass(desk)?.scene.get().instruments ?? desk.ownInstruments.get();
}

/** What lies on the shown page, the highest last. */
export function instrumentsOn(desk: InstrumentDesk): Lying[] {
  const page = desk.pageId.get();
  const isOwn = desk.isTeacher && desk.mayMeasure;
  const theirs = isOwn ? [] : (desk.classroom?.scene.get().instruments ?? []);
  return [
    ...theirs.map((instrument) => ({ instrument, isMine: false })),
    ...ownInstruments(desk).map((instrument) => ({ instrument, isMine: true })),
  ].filter(({ instrument }) => instrument.page === page);
}

/** Lays an instrument as it is now, above all others; `moving` while a hand still moves it. */
export function layInstrument(desk: InstrumentDesk, instrument: Instrument, moving = false): void {
  const others = ownInstruments(desk).filter(({ kind }) => kind !== instrument.kind);
  setInstruments(desk, [...others, instrument], moving);
}

export function putAway(desk: InstrumentDesk, kind: InstrumentKind): void {
  setInstruments(
    desk,
    ownInstruments(desk).filter((each) => each.kind !== kind),
  );
}

/** Lays an instrument in the middle of what is in sight, or puts it away if it lies on the shown page. */
export function toggleInstrument(desk: InstrumentDesk, kind: InstrumentKind): void {
  const own = ownInstruments(desk).find((each) => each.kind === kind);
  const page = desk.pageId.get();
  if (own && own.page === page) return putAway(desk, kind);
  if (page === undefined) return;
  const laid = newInstrument(desk, kind, page);
  layInstrument(desk, own ? { ...own, page, x: laid.x, y: laid.y, turn: laid.turn } : laid);
}

function setInstruments(desk: InstrumentDesk, instruments: readonly Instrument[], moving = false): void {
  const classroom = ofClass(desk);
  if (classroom) classroom.setScene({ instruments }, moving);
  else desk.ownInstruments.set(instruments);
}

function newInstrument(desk: InstrumentDesk, kind: InstrumentKind, page: string): Instrument {
  const seen = desk.visible();
  const size = ({ usual, least }: { usual: number; least: number }, room: number) =>
    Math.max(least, Math.min(usual, room * MOST_SHARE));
  const middle = { x: seen.x + seen.width / 2, y: seen.y + seen.height / 2 };
  const lain = { page, turn: 0 };
  const unit = desk.page?.gauge ? 'page' : 'cm';
  switch (kind) {
    case 'ruler': {
      const length = size(SIZES.ruler, seen.width);
      const place = { x: middle.x - length / 2, y: middle.y - RULER.breadth / 2 };
      return { ...lain, ...place, kind, length, units: [unit, 'mm'], stepped: false };
    }
    case 'square45':
    case 'square30': {
      const length = size(SIZES.square, Math.min(seen.width, seen.height));
      const place = { x: middle.x - length / 3, y: middle.y + length / 3 };
      return { ...lain, ...place, kind, length, unit, stepped: false, flip: false };
    }
    case 'protractor': {
      const radius = size(SIZES.protractor, Math.min(seen.width, seen.height) / 2);
      return { ...lain, ...middle, kind, full: false, radius, arm: 60 };
    }
    case 'compasses':
    case 'dividers': {
      const radius = size(SIZES.opening, seen.width / 3);
      return { ...lain, x: middle.x - radius / 2, y: middle.y, kind, radius };
    }
  }
}

/** Points of a line as ink: evenly firm, evenly fast over so many milliseconds. */
export function evenInk(points: readonly Point[], duration: number): number[] {
  const last = Math.max(1, points.length - 1);
  return points.flatMap(([x, y], i) => packPoint(x, y, FIRMNESS, (duration * i) / last));
}

/** How long a line would take that is drawn at once, milliseconds. */
const AT_ONCE_MS = 400;

/** Draws a line with the pen in one step. */
export function putInk(desk: Pick<Desk, 'newMark' | 'penCase' | 'target'>, points: readonly Point[]): void {
  const common = desk.newMark();
  if (!common) return;
  const ink = evenInk(points, points.length > 1 ? AT_ONCE_MS : 0);
  const whole = ink.length > STRIDE ? ink : [...ink, ...ink];
  const mark: MarkOf<'stroke'> = {
    ...common,
    kind: 'stroke',
    style: desk.penCase.get().pen,
    points: whole,
    pressure: false,
  };
  desk.target.perform([{ do: 'add', mark }]);
}

/** Draws two lines from a point that show the angle between them; just ink where no more is allowed. */
export function putAngle(
  desk: Pick<Desk, 'isTeacher' | 'mayTouch' | 'newMark' | 'page' | 'penCase' | 'target'>,
  corners: readonly [Point, Point, Point],
): void {
  const common = desk.newMark();
  if (!common) return;
  const { colour, width } = desk.penCase.get().pen;
  const points = corners.flat().map((value) => Math.round(value * 100) / 100);
  const mark: MarkOf<'path'> = {
    ...common,
    ...{ kind: 'path', course: 'straight', closed: false, heads: 'none', from: null, to: null, points },
    style: { line: colour, width, dash: 'solid', fill: null, opacity: 1 },
    measures: { shown: ['angles'], gauge: pageGauge(desk) },
  };
  const change: Change = { do: 'add', mark };
  if (desk.target.allows([change])) desk.target.perform([change]);
  else putInk(desk, corners);
}
