import { corneredTraces, hasFlatCorner, tremorOf } from './corners.js';
import { isAboutStraight, MOST_PIECES, openReadings } from './openShapes.js';
import type { Reading } from './reading.js';
import { fitCost } from './reading.js';
import type { Point } from './trace.js';
import { apart, openTrace, sizeOf } from './trace.js';

/** A barb is at most so long, as part of the shaft. */
const MOST_BARB = 0.48;
/** Between the shaft and a barb, radians. */
const BARB = { least: 0.14, most: 1.4 };
/** How far from the shaft's end a head may lie, as part of the drawing's size. */
const MISSED = 0.13;
/** What it is worth that strokes which do not go on from each other make sense together. */
const SAYS_MORE = 3;

type End = 'start' | 'end';

/** A line with a head at one or both ends, drawn in one stroke or with the heads apart. */
export function arrowReadings(strokes: readonly (readonly Point[])[]): Reading[] {
  const whole = strokes.length === 1 ? strokes[0]! : undefined;
  return whole ? withHeadInShaft(whole, [], sizeOf([whole])) : arrowOfSeveral(strokes);
}

function arrowOfSeveral(strokes: readonly (readonly Point[])[]): Reading[] {
  const longest = strokes.reduce((best, stroke) => (lengthOf(stroke) > lengthOf(best) ? stroke : best));
  const rest = strokes.filter((stroke) => stroke !== longest);
  return (
    headed(longest, rest.flatMap(barbsOf), sizeOf(strokes)) ?? withHeadInShaft(longest, rest, sizeOf(strokes))
  );
}

/** The stroke of the shaft goes on into the head, or into a part of it. */
function withHeadInShaft(
  shaft: readonly Point[],
  rest: readonly (readonly Point[])[],
  size: number,
): Reading[] {
  const cut = cutHead(shaft);
  return (cut && headed(cut.shaft, [...cut.barbs, ...rest.flatMap(barbsOf)], size)) ?? [];
}

/** The shaft as an arrow, if the barbs lie at its ends as those of a head do. */
function headed(
  shaft: readonly Point[],
  barbs: readonly (readonly Point[])[],
  size: number,
): Reading[] | undefined {
  const length = lengthOf(shaft);
  const at = { start: [] as number[], end: [] as number[] };
  for (const barb of barbs) {
    const end = endOf(shaft, barb, size);
    if (!end || lengthOf(barb) > MOST_BARB * length || !isAboutStraight(barb)) return undefined;
    at[end.end].push(end.angle);
  }
  const heads = (['start', 'end'] as const).filter((end) => at[end].length > 0);
  if (heads.length === 0 || heads.some((end) => !isHead(at[end]))) return undefined;
  return openReadings(openTrace(shaft)).flatMap(({ kind, body, cost, off }): Reading[] => {
    if (body.kind !== 'path') return [];
    const [first] = heads;
    const drawn = heads.length === 2 ? 'both' : first!;
    const corners = kind === 'line' ? 0 : 1;
    return [
      {
        kind: 'arrow',
        body: { ...body, heads: drawn },
        cost: cost - SAYS_MORE + fitCost(0, 1, corners),
        off,
      },
    ];
  });
}

/** Two barbs, one to either side. */
function isHead(angles: readonly number[]): boolean {
  return angles.length === 2 && angles[0]! * angles[1]! < 0;
}

/** At which end of the shaft a barb lies, and how far it is turned from the shaft there. */
function endOf(
  shaft: readonly Point[],
  barb: readonly Point[],
  size: number,
): { end: End; angle: number } | undefined {
  let best: { end: End; angle: number; distance: number } | undefined;
  for (const end of ['start', 'end'] as const)
    for (const piece of [barb, barb.toReversed()]) {
      const line = end === 'end' ? shaft.toReversed() : shaft;
      const distance = apart(line[0]!, piece[0]!);
      const angle = between(line[0]!, far(line, lengthOf(barb)), piece[0]!, piece.at(-1)!);
      const fits = Math.abs(angle) >= BARB.least && Math.abs(angle) <= BARB.most && distance <= MISSED * size;
      if (fits && (!best || distance < best.distance)) best = { end, angle, distance };
    }
  return best;
}

/** Lines that a head is made of: a bent one is two. */
function barbsOf(stroke: readonly Point[]): (readonly Point[])[] {
  if (isAboutStraight(stroke)) return [stroke];
  const { places } = corneredTraces(openTrace(stroke), 2)[1]!;
  const { x, y } = openTrace(stroke);
  const cut = (from: number, to: number) =>
    Array.from({ length: to - from + 1 }, (_, i): Point => [x[from + i]!, y[from + i]!]);
  return [cut(0, places[1]!), cut(places[1]!, places[2]!)];
}

/** A shaft that runs into its head: out to a barb and back, and on to the other. */
function cutHead(
  stroke: readonly Point[],
): { shaft: readonly Point[]; barbs: (readonly Point[])[] } | undefined {
  const trace = openTrace(stroke);
  const divided = corneredTraces(trace, MOST_PIECES);
  const tremor = tremorOf(divided);
  const likely = divided
    .filter((each) => each.places.length > 2 && !hasFlatCorner(each, false))
    .sort((a, b) => fitCost(a.off, tremor, a.corners.length) - fitCost(b.off, tremor, b.corners.length));
  const cut = (from: number, to: number) =>
    Array.from({ length: to - from + 1 }, (_, i): Point => [trace.x[from + i]!, trace.y[from + i]!]);
  for (const each of likely.slice(0, 4)) {
    const places = unfolded(each.places, cut);
    const [a, b, c, d] = places.slice(-4) as [number, number, number, number];
    if (places.length > 4 && isBack(cut(a, b), cut(b, c)))
      return { shaft: cut(0, a), barbs: [cut(a, b), cut(c, d)] };
  }
  const places = unfolded(likely[0]?.places ?? [], cut);
  const [tip, end] = places.slice(-2) as [number, number];
  return places.length > 2 ? { shaft: cut(0, tip), barbs: [cut(tip, end)] } : undefined;
}

/** A piece that goes out and back on the same line is two. */
function unfolded(places: readonly number[], cut: (from: number, to: number) => Point[]): number[] {
  return places.flatMap((to, i) => {
    if (i === 0) return [to];
    const from = places[i - 1]!;
    const piece = cut(from, to);
    const reach = piece.map((point) => apart(point, piece[0]!));
    const farthest = Math.max(...reach);
    const isFolded = lengthOf(piece) - farthest > 0.5 * farthest && reach.at(-1)! < 0.5 * farthest;
    return isFolded ? [from + reach.indexOf(farthest), to] : [to];
  });
}

/** Whether one piece leads back to where the other began. */
function isBack(out: readonly Point[], back: readonly Point[]): boolean {
  return apart(out[0]!, back.at(-1)!) < 0.45 * apart(out[0]!, out.at(-1)!);
}

function between(a: Point, b: Point, c: Point, d: Point): number {
  const [ux, uy, vx, vy] = [b[0] - a[0], b[1] - a[1], d[0] - c[0], d[1] - c[1]];
  return Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy);
}

/** The point of a line that lies so far along it. */
function far(line: readonly Point[], distance: number): Point {
  let length = 0;
  for (let i = 1; i < line.length; i++) {
    length += apart(line[i - 1]!, line[i]!);
    if (length >= distance) return line[i]!;
  }
  return line.at(-1)!;
}

function lengthOf(line: readonly Point[]): number {
  let length = 0;
  for (let i = 1; i < line.length; i++) length += apart(line[i - 1]!, line[i]!);
  return length;
}
