import type { Point } from '../neaten/trace.js';

/** A place on a line and the direction of the line there, as a part of half a turn. */
export interface Sample {
  readonly x: number;
  readonly y: number;
  readonly direction: number;
}

/** Samples of a form, evenly along all of its lines. */
const SAMPLES = 144;
/** How much of a drawing's proportions counts: 1 all, 0 nothing. */
const PROPORTION = 0.6;

/** The form of a drawing, however large it is and however its lines are parted. */
export class Form {
  private worked: DistanceField | undefined;

  private constructor(readonly samples: readonly Sample[]) {}

  /** Of some lines; undefined where they have no length. */
  static of(lines: readonly (readonly Point[])[]): Form | undefined {
    const samples = evenSamples(fittedIntoUnit(lines), SAMPLES);
    return samples && new Form(samples);
  }

  /** How far places are from it; worked out when it is first asked for. */
  get field(): DistanceField {
    this.worked ??= new DistanceField(this.samples);
    return this.worked;
  }
}

/** Lines in a box about 0, 0 whose larger side is 1; the smaller one grows a little, since hands get proportions wrong. */
function fittedIntoUnit(lines: readonly (readonly Point[])[]): Point[][] {
  const all = lines.flat();
  const [x0, x1] = extent(all.map(([x]) => x));
  const [y0, y1] = extent(all.map(([, y]) => y));
  const size = Math.max(x1 - x0, y1 - y0);
  const scale = (side: number) => (side < size / 20 ? 1 / size : (side / size) ** PROPORTION / side);
  const [sx, sy] = [scale(x1 - x0), scale(y1 - y0)];
  return lines.map((line) => line.map(([x, y]) => [(x - (x0 + x1) / 2) * sx, (y - (y0 + y1) / 2) * sy]));
}

function extent(values: readonly number[]): [number, number] {
  let [least, most] = [Infinity, -Infinity];
  for (const value of values) {
    if (value < least) least = value;
    if (value > most) most = value;
  }
  return [least, most];
}

function evenSamples(lines: readonly (readonly Point[])[], count: number): Sample[] | undefined {
  const pieces = lines.flatMap((line) =>
    line.slice(1).map(([x, y], i) => {
      const [ax, ay] = line[i]!;
      return { ax, ay, dx: x - ax, dy: y - ay, length: Math.hypot(x - ax, y - ay) };
    }),
  );
  const total = pieces.reduce((sum, { length }) => sum + length, 0);
  if (!(total > 0)) return undefined;
  const samples: Sample[] = [];
  let before = 0;
  for (const { ax, ay, dx, dy, length } of pieces) {
    const direction = (Math.atan2(dy, dx) / Math.PI + 1) % 1;
    while (samples.length < count) {
      const along = ((samples.length + 0.5) * total) / count - before;
      if (along > length) break;
      samples.push({ x: ax + (dx * along) / length, y: ay + (dy * along) / length, direction });
    }
    before += length;
  }
  return samples;
}

/** Cells of the field along a side; a form's box takes the middle of it. */
const CELLS = 30;
const CELL = 1.3 / CELLS;
const DIRECTIONS = 6;
/** What a line in another direction is farther away, units of the box for a quarter of a turn. */
const TURNED = 0.16;
/** No line is farther than this: one that is missing or too many counts for no more. */
const FARTHEST = 0.2;

/**
 * How far each place is from the nearest line of a form that runs in a similar direction: a distance transform for each of
 * some directions (Borgefors, Distance transformations in digital images, 1986; with directions as in Shotton, Blake and
 * Cipolla, Multiscale categorical object recognition using contour fragments, 2008).
 */
export class DistanceField {
  private readonly cells: readonly Float32Array[];

  constructor(samples: readonly Sample[]) {
    const own = Array.from({ length: DIRECTIONS }, () => new Float32Array(CELLS * CELLS).fill(FARTHEST));
    for (const { x, y, direction } of samples)
      own[directionCell(direction)]![cellAt(y) * CELLS + cellAt(x)] = 0;
    for (const cells of own) spread(cells);
    this.cells = own.map((_, direction) => nearestOfAll(own, direction));
  }

  /** Distance of a place, in units of the box; at most `FARTHEST`. */
  at(x: number, y: number, direction: number): number {
    return this.cells[directionCell(direction)]![cellAt(y) * CELLS + cellAt(x)]!;
  }
}

/** Directions from -1 on. */
function directionCell(direction: number): number {
  return Math.floor((direction + 1) * DIRECTIONS + 0.5) % DIRECTIONS;
}

function cellAt(value: number): number {
  const cell = Math.floor(value / CELL + CELLS / 2);
  return cell < 0 ? 0 : cell >= CELLS ? CELLS - 1 : cell;
}

/** Two passes over the cells, there and back, each of which is as far as its nearest neighbour and a step. */
function spread(cells: Float32Array): void {
  for (let y = 0; y < CELLS; y++) for (let x = 0; x < CELLS; x++) stepFrom(cells, x, y, -1);
  for (let y = CELLS - 1; y >= 0; y--) for (let x = CELLS - 1; x >= 0; x--) stepFrom(cells, x, y, 1);
}

const SLANT = CELL * Math.SQRT2;

/** A cell by its neighbours at one side and in the row before. */
function stepFrom(cells: Float32Array, x: number, y: number, way: 1 | -1): void {
  const cell = y * CELLS + x;
  const row = cell + way * CELLS;
  const [hasRow, atStart, atEnd] = [row >= 0 && row < cells.length, x === 0, x === CELLS - 1];
  let least = cells[cell]!;
  if (!(way === -1 ? atStart : atEnd)) least = Math.min(least, cells[cell + way]! + CELL);
  if (hasRow) {
    least = Math.min(least, cells[row]! + CELL);
    if (!atStart) least = Math.min(least, cells[row - 1]! + SLANT);
    if (!atEnd) least = Math.min(least, cells[row + 1]! + SLANT);
  }
  cells[cell] = least;
}

function nearestOfAll(own: readonly Float32Array[], direction: number): Float32Array {
  const nearest = new Float32Array(CELLS * CELLS).fill(FARTHEST);
  own.forEach((cells, other) => {
    const apart = Math.abs(other - direction);
    const turned = (Math.min(apart, DIRECTIONS - apart) / (DIRECTIONS / 2)) * TURNED;
    for (let cell = 0; cell < nearest.length; cell++)
      nearest[cell] = Math.min(nearest[cell]!, cells[cell]! + turned);
  });
  return nearest;
}
