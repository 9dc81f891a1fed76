import type { Rect } from '../geometry/rect.js';
import type { Frame } from './frame.js';
import type { Warp } from './match.js';
import { likenessUnder, refined } from './match.js';
import { likelyShifts, likelySlides, likelyZooms } from './candidates.js';
import type { Axis } from './profiles.js';
import { isTextured, TILE, tileDifference, tilesOf } from './tiles.js';

/** What became of a screen from one frame to the next. Lengths are pixels of the frames. */
export type Motion =
  /** Nothing of note has changed; `restless` tiles (indices, row by row) have. */
  | { kind: 'still'; restless: readonly number[] }
  /** What lies in `region` has moved: x' = scale · x + dx, y' = scale · y + dy. */
  | ({ kind: 'moved'; region: Rect; confidence: number } & Warp)
  /** Much has changed, and no movement explains it: `share` of what there is to see. */
  | { kind: 'changed'; share: number };

/** A smaller share of changed tiles than this is a caret, a clock or a pointer. */
const FEW = 0.008;
/** Mean difference of luma below which a tile has not changed; plain ones and those that look the same may differ by more. */
const UNCHANGED = 1;
const NOISE = 1.6;
const PLAIN_UNCHANGED = 4;
const ALIKE_UNCHANGED = 12;
/** Correlation from which a tile shows the same as before. */
const SAME_PLACE = 0.93;
/** Correlation from which a tile is explained by a shift: to rank shifts that are a pixel off, and once it is exact. */
const ROUGHLY = 0.5;
const EXACTLY = 0.72;
const ALIKE_ENLARGED = 0.6;
/** Tiles that have to be found again somewhere else. */
const LEAST_SUPPORT = 6;
/** Part of the tiles that could be found again that has to be. */
const LEAST_SHARE = 0.6;
const LEAST_SHARE_OF_FEW = 0.8;
const FEW_JUDGED = 0.5;
/** Where less than this is still in sight, two bars that look alike are enough to be taken for a movement. */
const LEAST_JUDGED = 0.2;
/** A shift that is supported this much as well as another leaves it open which is meant. */
const AMBIGUOUS = 0.7;
/** A part of the screen that scrolls is at least so large a share of it, one way and the other; smaller ones are videos. */
const LEAST_LONG = 0.45;
const LEAST_SHORT = 0.12;
const CANDIDATES = 5;
const RIVALS = 3;
/** A shift this near to whole pixels is by whole ones; and those are tried that lie about it. */
const WHOLE = 0.06;
const WHOLE_NEAR = [0, -1, 1].flatMap((y) => [0, -1, 1].map((x) => [x, y] as const));
const NEARER = [-2, -1, 0, 1, 2].flatMap((far) => [[0, far] as const, [far, 0] as const]);
/** Likely warps that are looked into, best first. */
const TRIED = 4;
/** Strips of tiles with nothing but edges and bars in them, such as between paragraphs. */
const GAP = 3;
const SETTLINGS = 8;
/** Changes by less than this are none, pixels. */
const SETTLED = 0.1;
const SETTLED_ZOOMS = 6;
/** Less than this is no movement, pixels. */
const LEAST_SHIFT = 0.3;
const ZOOM_CANDIDATES = 5;
const RANKING_TILES = 60;
/** Nothing within so many pixels is a different shift. */
const NEAR = 3;
const REFINEMENTS = 3;
/** So many tiles are enough to make a shift exact. */
const REFINING_TILES = 40;
const NO_WARP: Warp = { scale: 1, dx: 0, dy: 0 };

interface Changes extends Rect {
  /** Indices of changed tiles, row by row. */
  tiles: number[];
  share: number;
}

/** Two frames, and what changed between them. */
interface Pair {
  before: Frame;
  now: Frame;
  changes: Changes;
  columns: number;
  /** Changed tiles with something to be recognised by, and an even part of them, which is enough to rank by. */
  textured: readonly number[];
  some: readonly number[];
}

/**
 * Estimates what moved between two frames of a screen of one size. Likely shifts, diagonals and zooms are found by
 * profiles of edges, then each is judged by how many small tiles it explains, as block matching does (Jain and Jain,
 * IEEE Trans. Communications 29, 1981), tiles that do not follow (videos, fixed headers) being outliers, and made
 * exact to a fraction of a pixel. A shift is believed only if it explains much and no other explains nearly as much,
 * so that repeated lines do not make ink jump.
 */
export function estimateMotion(before: Frame, now: Frame): Motion {
  if (before.width !== now.width || before.height !== now.height) return { kind: 'changed', share: 1 };
  const changes = changedTiles(before, now);
  if (changes.share < FEW) return { kind: 'still', restless: changes.tiles };
  const columns = tilesOf(now).columns;
  const textured = changes.tiles.filter((i) => isTextured(now, i % columns, Math.floor(i / columns)));
  const some = textured.filter((_, i) => i % Math.ceil(textured.length / RANKING_TILES) === 0);
  const pair: Pair = { before, now, changes, columns, textured, some };
  if (isLarge(changes, now)) {
    const moved = scrolled(pair, 'y') ?? scrolled(pair, 'x') ?? slid(pair) ?? zoomed(pair);
    if (moved) return moved;
  }
  return { kind: 'changed', share: seenShare(before, now, changes) };
}

function isLarge(area: Rect, frame: Frame): boolean {
  const shares = [area.width / frame.width, area.height / frame.height];
  return Math.max(...shares) >= LEAST_LONG && Math.min(...shares) >= LEAST_SHORT;
}

/** Changed tiles as a share of those that have anything in them in either frame. */
function seenShare(before: Frame, now: Frame, { tiles }: Changes): number {
  const { columns, rows } = tilesOf(now);
  let seen = 0;
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++)
      if (isTextured(now, column, row) || isTextured(before, column, row)) seen += 1;
  return Math.min(1, tiles.length / Math.max(1, seen));
}

function changedTiles(before: Frame, now: Frame): Changes {
  const { columns, rows } = tilesOf(now);
  const tiles: number[] = [];
  let [left, top, right, bottom] = [columns, rows, 0, 0];
  for (let row = 0; row < rows; row++) {
    for (let column = 0; column < columns; column++) {
      if (!hasChanged(before, now, column, row)) continue;
      tiles.push(row * columns + column);
      [left, top] = [Math.min(left, column), Math.min(top, row)];
      [right, bottom] = [Math.max(right, column + 1), Math.max(bottom, row + 1)];
    }
  }
  const area = {
    x: left * TILE,
    y: top * TILE,
    // The rest beyond whole tiles belongs to what changed beside it.
    width: (right === columns ? now.width : right * TILE) - left * TILE,
    height: (bottom === rows ? now.height : bottom * TILE) - top * TILE,
  };
  return { ...area, tiles, share: tiles.length / Math.max(1, columns * rows) };
}

/** Whether a tile shows something else; what a lossy picture does to it is no change. */
function hasChanged(before: Frame, now: Frame, column: number, row: number): boolean {
  const difference = tileDifference(now, before, column, row, 0, 0, ALIKE_UNCHANGED);
  if (difference < UNCHANGED || difference > ALIKE_UNCHANGED) return difference >= UNCHANGED;
  const likeness = likenessUnder(before, now, column, row, NO_WARP);
  return likeness === undefined ? difference > PLAIN_UNCHANGED : likeness < SAME_PLACE && difference > NOISE;
}

interface Support {
  warp: Warp;
  /** Tiles that the warp explains. */
  tiles: number[];
  /** Changed tiles with something to be recognised by whose origin is inside the area. */
  judged: number;
}

function supportOf(
  { before, now, columns }: Pair,
  among: readonly number[],
  warp: Warp,
  least = EXACTLY,
  rough = false,
): Support {
  const support: Support = { warp, tiles: [], judged: 0 };
  for (const i of among) {
    const like = likenessUnder(before, now, i % columns, Math.floor(i / columns), warp, rough);
    if (like === undefined) continue;
    support.judged += 1;
    if (like >= least) support.tiles.push(i);
  }
  return support;
}

/** A scroll along one axis. */
function scrolled(pair: Pair, axis: Axis): Motion | undefined {
  const { before, now, changes } = pair;
  const warps = likelyShifts(before, now, changes, axis, CANDIDATES).map((shift) =>
    axis === 'y' ? { ...NO_WARP, dy: shift } : { ...NO_WARP, dx: shift },
  );
  return bestOf(pair, warps, false);
}

/** A scroll along both axes at once. */
function slid(pair: Pair): Motion | undefined {
  return bestOf(pair, likelySlides(pair.before, pair.now, CANDIDATES), false);
}

/** A zoom about any point. Far from that point a scale that is a little off explains nothing, so the best are made exact first. */
function zoomed(pair: Pair): Motion | undefined {
  const likely = ranked(pair, likelyZooms(pair.before, pair.now, ZOOM_CANDIDATES)).slice(0, SETTLED_ZOOMS);
  const exact = likely.filter(({ tiles }) => tiles.length >= LEAST_SUPPORT);
  return bestOf(
    pair,
    exact.map((zoom) => settled(pair, zoom, true)),
    true,
  );
}

/** Warps by how much they explain, roughly, best first. */
function ranked(pair: Pair, warps: readonly Warp[]): Support[] {
  return warps
    .map((warp) => supportOf(pair, pair.some, warp, ROUGHLY, true))
    .sort((a, b) => b.tiles.length - a.tiles.length);
}

/** The warp that explains most, made exact; undefined where none explains enough, or two do. */
function bestOf(pair: Pair, warps: readonly Warp[], zooms: boolean): Motion | undefined {
  const likely = ranked(pair, warps).slice(0, TRIED);
  const found = firstBelieved(pair, likely, zooms);
  if (found || zooms) return found;
  return firstBelieved(
    pair,
    likely.map((support) => nearer(pair, support)),
    false,
  );
}

function firstBelieved(pair: Pair, likely: readonly Support[], zooms: boolean): Motion | undefined {
  for (const support of likely) {
    const motion = explains(support) ? believed(pair, support, likely, zooms) : undefined;
    if (motion) return motion;
  }
  return undefined;
}

const explains = ({ tiles, judged }: Support) => tiles.length >= LEAST_SHARE * judged;

/** The shift within a few pixels of a likely one that explains most: thin lines at regular distances leave that open. */
function nearer(pair: Pair, { warp }: Support): Support {
  const [dx, dy] = [Math.round(warp.dx), Math.round(warp.dy)];
  return NEARER.map(([x, y]) =>
    supportOf(pair, pair.some, { ...warp, dx: dx + x, dy: dy + y }, ROUGHLY, true),
  ).reduce((best, other) => (other.tiles.length > best.tiles.length ? other : best));
}

/** What a likely warp shows, once it is exact; undefined where that is not to be believed. */
function believed(
  pair: Pair,
  likely: Support,
  supports: readonly Support[],
  zooms: boolean,
): Motion | undefined {
  const warp = wholeOf(pair, settled(pair, likely, zooms), likely.tiles);
  if (isStill(warp)) return undefined;
  // Letters are drawn anew at each size, so only their blurred pictures are alike.
  const { tiles, judged } = zooms
    ? supportOf(pair, pair.textured, warp, ALIKE_ENLARGED, true)
    : supportOf(pair, pair.textured, warp);
  if (isRivalled(pair, warp, supports, zooms)) return undefined;
  if (judged < LEAST_JUDGED * pair.textured.length) return undefined;
  // Where little is left to be judged, chance explains more of it.
  const least = judged < FEW_JUDGED * pair.textured.length ? LEAST_SHARE_OF_FEW : LEAST_SHARE;
  if (tiles.length < LEAST_SUPPORT || tiles.length < least * judged) return undefined;
  const region = regionOf(tiles, pair);
  if (!isLarge(region, pair.now)) return undefined;
  return { kind: 'moved', ...warp, region, confidence: tiles.length / Math.max(1, judged) };
}

/**
 * A warp by whole pixels where that explains most to the bit, or is as good as the same: a plain scroll, which must not
 * gather errors.
 */
function wholeOf({ before, now, columns }: Pair, warp: Warp, tiles: readonly number[]): Warp {
  if (warp.scale !== 1) return warp;
  const [dx, dy] = [Math.round(warp.dx) + 0, Math.round(warp.dy) + 0];
  if (Math.hypot(dx - warp.dx, dy - warp.dy) < WHOLE) return { scale: 1, dx, dy };
  const near = WHOLE_NEAR.map(([x, y]) => ({ scale: 1, dx: dx + x, dy: dy + y }));
  const isSame = (i: number, { dx: x, dy: y }: Warp) =>
    tileDifference(now, before, i % columns, Math.floor(i / columns), x, y, UNCHANGED) <= UNCHANGED;
  return near.find((whole) => tiles.filter((i) => isSame(i, whole)).length >= tiles.length / 2) ?? warp;
}

/** Whether another warp that is made exact too explains nearly as much. */
function isRivalled(pair: Pair, warp: Warp, supports: readonly Support[], zooms: boolean): boolean {
  const least = AMBIGUOUS * supportOf(pair, pair.some, warp).tiles.length;
  return supports
    .filter(({ warp: other, tiles }) => isOther(other, warp) && tiles.length > least)
    .slice(0, RIVALS)
    .map((rival) => settled(pair, rival, zooms))
    .some((other) => isOther(other, warp) && supportOf(pair, pair.some, other).tiles.length > least);
}

/** Whether a warp moves nothing by as much as can be seen. */
const isStill = ({ scale, dx, dy }: Warp) =>
  Math.hypot(dx, dy) < LEAST_SHIFT && Math.abs(scale - 1) < LEAST_SHIFT / 1000;

const isOther = (a: Warp, b: Warp, near = NEAR) => Math.hypot(a.dx - b.dx, a.dy - b.dy) > near;

/** A warp made exact by the tiles that it explains, which become more as it does. */
function settled(pair: Pair, support: Support, zooms: boolean): Warp {
  let { warp, tiles } = support;
  for (let i = 0; i < SETTLINGS; i++) {
    const next = exact(pair, warp, zooms, tiles);
    const isSettled = !isOther(warp, next, SETTLED) && Math.abs(next.scale - warp.scale) < SETTLED / 1000;
    warp = next;
    if (isSettled) break;
    ({ tiles } = supportOf(pair, pair.some, warp, ROUGHLY, true));
  }
  if (!zooms) return warp;
  // A scale that is off by a thousandth is a pixel off at the far side, so all tiles have a say in it.
  const all = supportOf(pair, pair.textured, warp, ALIKE_ENLARGED, true).tiles;
  return exact(pair, warp, true, all, all.length);
}

function exact(
  { before, now, columns }: Pair,
  warp: Warp,
  zooms: boolean,
  tiles: readonly number[],
  most = REFINING_TILES,
): Warp {
  const few = tiles.filter((_, i) => i % Math.ceil(tiles.length / most) === 0);
  let found = warp;
  for (let i = 0; i < REFINEMENTS; i++) found = refined(before, now, few, columns, found, zooms);
  return found;
}

/**
 * The rectangle of whole tiles round those that moved, grown on each side until it meets something that stayed where it
 * was: margins and what has come into sight belong to what is scrolled, headers and lists beside it do not.
 */
function regionOf(moved: readonly number[], { now, changes, columns }: Pair): Rect {
  const { rows } = tilesOf(now);
  const changed = new Set(changes.tiles);
  /** How many more tiles of a strip changed than stayed. */
  const balance = (x0: number, y0: number, x1: number, y1: number) => {
    let sum = 0;
    for (let row = y0; row < y1; row++)
      for (let column = x0; column < x1; column++)
        if (isTextured(now, column, row)) sum += changed.has(row * columns + column) ? 1 : -1;
    return sum;
  };
  /** How far one can go over `room` strips: over what changed, and over gaps beyond which more did. */
  const reach = (room: number, strip: (step: number) => number) => {
    let gone = 0;
    for (let step = 1; step <= room && step - gone <= GAP + 1; step++) {
      const difference = strip(step);
      if (difference > 0 || (difference === 0 && step === gone + 1)) gone = step;
    }
    return gone;
  };
  const [xs, ys] = [moved.map((i) => i % columns), moved.map((i) => Math.floor(i / columns))];
  let [left, top] = [Math.min(...xs), Math.min(...ys)];
  let [right, bottom] = [Math.max(...xs) + 1, Math.max(...ys) + 1];
  top -= reach(top, (step) => balance(left, top - step, right, top - step + 1));
  bottom += reach(rows - bottom, (step) => balance(left, bottom + step - 1, right, bottom + step));
  left -= reach(left, (step) => balance(left - step, top, left - step + 1, bottom));
  right += reach(columns - right, (step) => balance(right + step - 1, top, right + step, bottom));
  // The rest beyond whole tiles belongs to what lies beside it.
  const width = (right === columns ? now.width : right * TILE) - left * TILE;
  const height = (bottom === rows ? now.height : bottom * TILE) - top * TILE;
  return { x: left * TILE, y: top * TILE, width, height };
}
