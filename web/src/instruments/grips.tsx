import type { Point } from '@doodla/core';
import type { Instrument } from '@doodla/core/instruments';
import {
  armEnd,
  armTo,
  fullTurn,
  onInstrument,
  onPage,
  openedTo,
  RULER,
  squareCorners,
  steppedOn,
  turnedBy,
  withLength,
  withRadius,
} from '@doodla/core/instruments';
import { Footprints, Move, MoveDiagonal, MoveHorizontal, RefreshCw, RotateCw } from 'lucide-react';
import type { ReactNode } from 'react';
import { layInstrument, putInk } from '../desk/instruments';
import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';
import { HINGE } from './LegsFace';

/** Something by which an instrument is changed. */
export interface GripOf {
  label: string;
  icon: ReactNode;
  /** Where it is in the instrument's plane, and how far beside that, CSS pixels. */
  at: Point;
  off: Point;
  /** How the instrument lies when a hand has dragged this from one point of the page to another; `meet` leads to what is there. */
  drag(start: Instrument, from: Point, to: Point, meet: (at: Point) => Point): Instrument;
  /** What an arrow key does, -1 to 1 each way. */
  arrow(instrument: Instrument, right: number, down: number): Instrument;
  /** What it does when it is pressed, instead of being dragged. */
  click?(desk: PageDesk, instrument: Instrument): void;
}

/** How far a grip lies beyond the end of an instrument, CSS pixels. */
const BESIDE = 30;
/** Two that lie there lie so far above and below. */
const APART = 24;
/** How far an arrow key lengthens or opens an instrument, page units. */
const KEY_STEP = 96 / 25.4;

/** Turned by one degree, or so many, clockwise. */
export function turnedByKeys<I extends Instrument>(instrument: I, degrees: number): I {
  return { ...instrument, turn: fullTurn(instrument.turn + degrees) };
}

/** Where the label with what it reads is: in the instrument's plane, and how far beside that, CSS pixels. */
export function labelPlace(instrument: Instrument): [Point, Point] {
  switch (instrument.kind) {
    case 'ruler':
      return [
        [instrument.length / 2, RULER.breadth / 2],
        [0, 0],
      ];
    case 'square45':
    case 'square30': {
      const [, far, up] = squareCorners(instrument);
      return [
        [far[0] * 0.28, up[1] * 0.28],
        [0, 0],
      ];
    }
    case 'protractor':
      return [
        [0, -instrument.radius * 0.4],
        [0, 0],
      ];
    case 'compasses':
    case 'dividers':
      return [
        [instrument.radius / 2, -HINGE - 16],
        [0, -BESIDE - 30],
      ];
  }
}

/** The grips of an instrument. */
export function gripsOf(instrument: Instrument): GripOf[] {
  switch (instrument.kind) {
    case 'ruler': {
      const { length } = instrument;
      return [
        turn([length + RULER.margin, RULER.breadth / 2], [BESIDE, -APART]),
        lengthen([length + RULER.margin, RULER.breadth / 2], [BESIDE, APART]),
      ];
    }
    case 'square45':
    case 'square30': {
      const [, far, up] = squareCorners(instrument);
      const side = Math.sign(far[0]);
      return [
        turn(far, [side * BESIDE, 0]),
        lengthen([far[0] * 0.55, up[1] * 0.45], [side * BESIDE, -BESIDE]),
      ];
    }
    case 'protractor': {
      const { radius } = instrument;
      return [turn([radius, 0], [BESIDE, 0]), arm(armEnd(instrument)), radiusOf([-radius, 0], [-BESIDE, 0])];
    }
    case 'compasses': {
      const { radius } = instrument;
      return [carry(), open([radius, 0], [BESIDE, 20]), swing(radius)];
    }
    case 'dividers': {
      const { radius } = instrument;
      return [carry(), open([radius, 0], [BESIDE, 20]), swing(radius), step(radius)];
    }
  }
}

function turn(at: Point, off: Point): GripOf {
  return {
    ...{ label: t('instruments.turn'), icon: <RotateCw aria-hidden />, at, off },
    drag: turnedBy,
    arrow: (instrument, right, down) => turnedByKeys(instrument, right + down),
  };
}

function lengthen(at: Point, off: Point): GripOf {
  const longer = (instrument: Instrument, by: number) =>
    'length' in instrument ? withLength(instrument, instrument.length + by) : instrument;
  return {
    ...{ label: t('instruments.lengthen'), icon: <MoveHorizontal aria-hidden />, at, off },
    drag: (start, from, to) => {
      const [by] = onInstrument({ ...start, x: from[0], y: from[1] }, to);
      return longer(start, 'flip' in start && start.flip ? -by : by);
    },
    arrow: (instrument, right, down) => longer(instrument, (right - down) * KEY_STEP),
  };
}

function radiusOf(at: Point, off: Point): GripOf {
  const larger = (instrument: Instrument, by: number) =>
    instrument.kind === 'protractor' ? withRadius(instrument, instrument.radius + by) : instrument;
  return {
    ...{ label: t('instruments.enlarge'), icon: <MoveHorizontal aria-hidden />, at, off },
    drag: (start, from, to) => larger(start, -onInstrument({ ...start, x: from[0], y: from[1] }, to)[0]),
    arrow: (instrument, right, down) => larger(instrument, (right - down) * KEY_STEP),
  };
}

function arm(at: Point): GripOf {
  return {
    ...{ label: t('instruments.arm'), icon: <RefreshCw aria-hidden />, at, off: [0, 0] },
    drag: (start, _, to) => (start.kind === 'protractor' ? armTo(start, to) : start),
    arrow: (instrument, right, down) =>
      instrument.kind === 'protractor'
        ? {
            ...instrument,
            arm: Math.max(0, Math.min(instrument.full ? 359 : 180, instrument.arm - right - down)),
          }
        : instrument,
  };
}

/** Carries compasses or dividers by the leg with the point that stays. */
function carry(): GripOf {
  return {
    ...{ label: t('instruments.carry'), icon: <Move aria-hidden />, at: [0, 0], off: [-BESIDE, -44] },
    drag: (start, from, to, meet) => {
      const [x, y] = meet([start.x + to[0] - from[0], start.y + to[1] - from[1]]);
      return { ...start, x, y };
    },
    arrow: (instrument, right, down) => ({ ...instrument, x: instrument.x + right, y: instrument.y + down }),
  };
}

/** Puts the other end anywhere, which opens or closes them. */
function open(at: Point, off: Point): GripOf {
  return {
    ...{ label: t('instruments.open'), icon: <MoveDiagonal aria-hidden />, at, off },
    drag: (start, from, to, meet) => {
      if (start.kind !== 'compasses' && start.kind !== 'dividers') return start;
      const [x, y] = onPage(start, [start.radius, 0]);
      return openedTo(start, meet([x + to[0] - from[0], y + to[1] - from[1]]));
    },
    arrow: (instrument, right, down) =>
      instrument.kind === 'compasses' || instrument.kind === 'dividers'
        ? withRadius(instrument, instrument.radius + (right - down) * KEY_STEP)
        : instrument,
  };
}

/** Swings compasses or dividers about their point without drawing. */
function swing(radius: number): GripOf {
  return {
    ...turn([radius / 2, -HINGE - 16], [0, -BESIDE + 8]),
    label: t('instruments.swing'),
  };
}

/** Steps dividers on, and pricks the page where they land. */
function step(radius: number): GripOf {
  return {
    ...turn([radius, 0], [BESIDE, -34]),
    label: t('instruments.step'),
    icon: <Footprints aria-hidden />,
    click(desk, instrument) {
      if (instrument.kind !== 'dividers') return;
      const on = steppedOn(instrument);
      layInstrument(desk, on);
      putInk(desk, [onPage(on, [0, 0])]);
    },
  };
}
