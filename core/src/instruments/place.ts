import type { Point } from '../measure/outline.js';
import type { Instrument } from './instrument.js';

type Lies = Pick<Instrument, 'x' | 'y' | 'turn'>;

const RADIANS = Math.PI / 180;

/** An instrument turns into these angles by itself when it nearly lies at them: every so many degrees, so near. */
const DETENT = { every: 15, within: 1.2 };

/** An angle from 0 up to 360, to a thousandth. */
export function fullTurn(degrees: number): number {
  const turn = Math.round((((degrees % 360) + 360) % 360) * 1000) / 1000;
  return turn === 360 ? 0 : turn;
}

/** Where a point of an instrument's own plane lies on the page. */
export function onPage({ x, y, turn }: Lies, [px, py]: Point): Point {
  const [cos, sin] = [Math.cos(turn * RADIANS), Math.sin(turn * RADIANS)];
  return [x + px * cos - py * sin, y + px * sin + py * cos];
}

/** Where a point of the page lies in an instrument's own plane. */
export function onInstrument({ x, y, turn }: Lies, [px, py]: Point): Point {
  const [cos, sin] = [Math.cos(turn * RADIANS), Math.sin(turn * RADIANS)];
  const [dx, dy] = [px - x, py - y];
  return [dx * cos + dy * sin, dy * cos - dx * sin];
}

/** Turned about a point of the page, degrees clockwise. */
export function turnedAbout<I extends Instrument>(instrument: I, pivot: Point, degrees: number): I {
  const { x, y, turn } = instrument;
  const [px, py] = onPage({ x: pivot[0], y: pivot[1], turn: degrees }, [x - pivot[0], y - pivot[1]]);
  return { ...instrument, x: px, y: py, turn: fullTurn(turn + degrees) };
}

/**
 * As fingers have moved it that held it at points of the page and are at others now: by one it is moved, by two it is moved and
 * turned, its size stays. Near a usual angle it turns into that.
 */
export function carried<I extends Instrument>(
  instrument: I,
  from: readonly Point[],
  to: readonly Point[],
): I {
  const [a, b] = from;
  const [c, d] = to;
  if (!a || !c) return instrument;
  if (!b || !d) return { ...instrument, x: instrument.x + c[0] - a[0], y: instrument.y + c[1] - a[1] };
  const before: Point = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
  const now: Point = [(c[0] + d[0]) / 2, (c[1] + d[1]) / 2];
  const turn = (Math.atan2(d[1] - c[1], d[0] - c[0]) - Math.atan2(b[1] - a[1], b[0] - a[0])) / RADIANS;
  const moved = { ...instrument, x: instrument.x + now[0] - before[0], y: instrument.y + now[1] - before[1] };
  return turnedAbout(moved, now, settled(instrument.turn + turn) - instrument.turn);
}

/** An angle, or the usual one that it nearly is, degrees. */
export function settled(degrees: number): number {
  const usual = Math.round(degrees / DETENT.every) * DETENT.every;
  return Math.abs(degrees - usual) <= DETENT.within ? usual : degrees;
}

/** Turned by a hand that drags a handle from one point of the page to another, about its place. */
export function turnedBy<I extends Instrument>(instrument: I, from: Point, to: Point): I {
  const { x, y, turn } = instrument;
  const by = Math.atan2(to[1] - y, to[0] - x) - Math.atan2(from[1] - y, from[0] - x);
  return { ...instrument, turn: fullTurn(settled(turn + by / RADIANS)) };
}

/** The direction from one point to another, degrees clockwise from the right. */
export function directionOf([ax, ay]: Point, [bx, by]: Point): number {
  return fullTurn(Math.atan2(by - ay, bx - ax) / RADIANS);
}
