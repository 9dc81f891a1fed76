import type { Rect } from '../geometry/rect.js';
import type { Axis } from './candidates.js';
import { likelyShifts } from './candidates.js';
import type { Frame } from './frame.js';
import { isTextured, SAME, TILE, tileDifference, tilesOf } from './tiles.js';

/** What became of a screen from one frame to the next. Lengths are pixels of the frames. */
export type Motion =
  /** Nothing of note has changed; `restless` tiles (indices, row by row) have. */
  | { kind: 'still'; restless: readonly number[] }
  /** What lies in `region` has moved by dx, dy. */
  | { kind: 'moved'; dx: number; dy: number; region: Rect; confidence: number }
  /** Much has changed, and no movement explains it: `share` of what there is to see. */
  | { kind: 'changed'; share: number };

/** A smaller share of changed tiles than this is a caret, a clock or a pointer. */
const FEW = 0.008;
/** Mean difference of luma below which a tile has not changed. */
const UNCHANGED = 1;
/** Tiles that have to be found again somewhere else. */
const LEAST_SUPPORT = 6;
/** Part of the tiles that could be found again that has to be. */
const LEAST_SHARE = 0.45;
/** A shift that is supported this much as well as another leaves it open which is meant. */
const AMBIGUOUS = 0.7;
/** A part of the screen that scrolls is at least so large a share of it each way; smaller ones are videos. */
const LEAST_REGION = 0.35;
const CANDIDATES = 6;
const RANKING_TILES = 120;
/** Nothing within so many pixels is a different shift. */
const NEAR = 2;

interface Changes extends Rect {
  /** Indices of changed tiles, row by row. */
  tiles: number[];
  share: number;
}

/**
 * Estimates what moved between two frames of a screen of one size: likely shifts are found along
 * one axis, then each is judged by how many small tiles it explains to the bit, as block matching
 * does (Jain and Jain, IEEE Trans. Communications 29, 1981), tiles that do not follow (videos, fixed
 * headers) being outliers. A shift is believed only if it explains much and no other explains nearly
 * as much, so that repeated lines do not make ink jump.
 */
export function estimateMotion(before: Frame, now: Frame): Motion {
  if (before.width !== now.width || before.height !== now.height) return { kind: 'changed', share: 1 };
  const changes = changedTiles(before, now);
  if (changes.share < FEW) return { kind: 'still', restless: changes.tiles };
  return (
    alongAxis(before, now, changes, 'y') ??
    alongAxis(before, now, changes, 'x') ?? { kind: 'changed', share: seenShare(before, now, changes) }
  );
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
      if (tileDifference(now, before, column, row, 0, 0, UNCHANGED) < UNCHANGED) continue;
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

interface Support {
  shift: number;
  /** Tiles that the shift explains and no movement does not. */
  tiles: number[];
  /** Changed tiles with something to be recognised by whose origin is inside the area. */
  judged: number;
  /** Sum of the differences of the explained tiles. */
  rest: number;
}

function alongAxis(before: Frame, now: Frame, changes: Changes, axis: Axis): Motion | undefined {
  if (changes.width < LEAST_REGION * now.width || changes.height < LEAST_REGION * now.height)
    return undefined;
  const columns = tilesOf(now).columns;
  const textured = changes.tiles.filter((i) => isTextured(now, i % columns, Math.floor(i / columns)));
  const support = (shift: number, among = textured) => supportOf(before, now, changes, among, axis, shift);
  // A part of the tiles is enough to rank the shifts by.
  const some = textured.filter((_, i) => i % Math.ceil(textured.length / RANKING_TILES) === 0);
  const ranked = likelyShifts(before, now, changes, axis, CANDIDATES)
    .map((shift) => support(shift, some))
    .sort((a, b) => b.tiles.length - a.tiles.length);
  const first = ranked[0];
  if (!first || first.tiles.length < LEAST_SHARE * first.judged) return undefined;
  const nearest = [first.shift - 1, first.shift + 1]
    .map((shift) => support(shift, some))
    .reduce((a, b) => (isBetter(b, a) ? b : a), first);
  const rival = ranked.find(({ shift }) => Math.abs(shift - nearest.shift) > NEAR);
  if (rival && rival.tiles.length > AMBIGUOUS * nearest.tiles.length) return undefined;
  const refined = support(nearest.shift);
  if (refined.tiles.length < LEAST_SUPPORT || refined.tiles.length < LEAST_SHARE * refined.judged)
    return undefined;
  const region = regionOf(refined.tiles, columns, now, changes);
  if (region.width < LEAST_REGION * now.width || region.height < LEAST_REGION * now.height) return undefined;
  const confidence = refined.tiles.length / Math.max(1, refined.judged);
  const [dx, dy] = axis === 'y' ? [0, refined.shift] : [refined.shift, 0];
  return { kind: 'moved', dx, dy, region, confidence };
}

function isBetter(a: Support, b: Support): boolean {
  if (a.tiles.length !== b.tiles.length) return a.tiles.length > b.tiles.length;
  return a.rest < b.rest;
}

function supportOf(
  before: Frame,
  now: Frame,
  area: Rect,
  textured: readonly number[],
  axis: Axis,
  shift: number,
): Support {
  const { columns } = tilesOf(now);
  const [dx, dy] = axis === 'y' ? [0, shift] : [shift, 0];
  const support: Support = { shift, tiles: [], judged: 0, rest: 0 };
  for (const i of textured) {
    const [column, row] = [i % columns, Math.floor(i / columns)];
    const [sx, sy] = [column * TILE - dx, row * TILE - dy];
    if (sx < area.x || sy < area.y || sx + TILE > area.x + area.width || sy + TILE > area.y + area.height)
      continue;
    support.judged += 1;
    const difference = tileDifference(now, before, column, row, dx, dy, SAME);
    if (difference > SAME) continue;
    support.tiles.push(i);
    support.rest += difference;
  }
  return support;
}

/** The smallest rectangle of whole tiles round those that moved, out to the frame's edge where it is near. */
function regionOf(tiles: readonly number[], columns: number, now: Frame, changes: Rect): Rect {
  let [left, top, right, bottom] = [Infinity, Infinity, 0, 0];
  for (const i of tiles) {
    const [x, y] = [(i % columns) * TILE, Math.floor(i / columns) * TILE];
    [left, top] = [Math.min(left, x), Math.min(top, y)];
    [right, bottom] = [Math.max(right, x + TILE), Math.max(bottom, y + TILE)];
  }
  // What has come into sight at an end cannot be found again in the frame before, but has moved too.
  left = Math.min(left, changes.x);
  top = Math.min(top, changes.y);
  right = Math.max(right, changes.x + changes.width);
  bottom = Math.max(bottom, changes.y + changes.height);
  return {
    x: left,
    y: top,
    width: Math.min(now.width, right) - left,
    height: Math.min(now.height, bottom) - top,
  };
}
