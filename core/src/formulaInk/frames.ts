import type { Part } from './parts.js';
import { bottomOf, middleX, middleY, rightOf, sizeOf } from './parts.js';

/** What other strokes stand over, under or in: the bar of a fraction, or a root. */
export type Frame =
  | { is: 'fraction'; bar: Part; over: readonly Part[]; under: readonly Part[] }
  | { is: 'root'; sign: Part; of: readonly Part[]; degree: readonly Part[] };

/** A stroke is level where it is so much flatter than it is long. */
const FLAT = 0.22;
const BENT = 0.1;
/** What stands over or under a bar may reach so far beyond its ends, usual sizes. */
const REACH = { sure: 0.3, clear: 0.8 };
/** What stands over or under a bar is no farther from it, usual sizes. */
const FAR = 1.6;
/** Strokes smaller than this part of the usual size are dots. */
const DOT = { line: 0.36, ring: 0.22 };

/** Whether a stroke is no more than a dot; a small ring is one only where it is smaller still. */
export function isDot({ box, line }: Part, usual: number): boolean {
  let length = 0;
  for (let i = 2; i < line.length; i += 2)
    length += Math.hypot(line[i]! - line[i - 2]!, line[i + 1]! - line[i - 1]!);
  const isRing = length > 2 * sizeOf(box);
  return sizeOf(box) < DOT[isRing ? 'ring' : 'line'] * usual;
}

/** Whether a stroke is a level line: flat, and nowhere far off the straight way between its ends. */
export function isFlat({ box, line }: Part): boolean {
  if (box.height >= FLAT * box.width) return false;
  const [ax, ay, bx, by] = [line[0]!, line[1]!, line.at(-2)!, line.at(-1)!];
  const length = Math.hypot(bx - ax, by - ay) || 1;
  if (length < 0.8 * box.width) return false;
  for (let i = 2; i < line.length; i += 2) {
    const off = Math.abs((line[i]! - ax) * (by - ay) - (line[i + 1]! - ay) * (bx - ax)) / length;
    if (off > BENT * box.width) return false;
  }
  return true;
}

/** The widest frame among strokes, as what is inside another is narrower; undefined where there is none. */
export function widestFrame(parts: readonly Part[], usual: number): Frame | undefined {
  const widest = [...parts].sort((a, b) => b.box.width - a.box.width);
  for (const part of widest) {
    const frame = isFlat(part) ? fractionOf(part, parts, usual) : rootOf(part, parts, usual);
    if (frame) return frame;
  }
  return undefined;
}

/** All strokes of a frame. */
export function partsIn(frame: Frame): readonly Part[] {
  return frame.is === 'fraction'
    ? [frame.bar, ...frame.over, ...frame.under]
    : [frame.sign, ...frame.of, ...frame.degree];
}

function fractionOf(bar: Part, parts: readonly Part[], usual: number): Frame | undefined {
  const y = heightsOf(bar);
  const near = parts.filter((part) => {
    if (part === bar) return false;
    const [from, to] = [middleX(part.box) - bar.box.left, middleX(part.box) - rightOf(bar.box)];
    // A bar that was drawn too short: what belongs to it begins before it ends and stands clear of it.
    const at = y(rightOf(bar.box));
    const isClear = bottomOf(part.box) < at || part.box.top > at;
    const begins = part.box.left < rightOf(bar.box);
    return from > -REACH.sure * usual && to < REACH[isClear && begins ? 'clear' : 'sure'] * usual;
  });
  const isOver = ({ box }: Part) => middleY(box) < y(middleX(box));
  const over = near.filter(isOver);
  const under = near.filter((part) => !isOver(part));
  const isSolid = (part: Part) => !isFlat(part) && !isDot(part, usual);
  const crosses = ({ box }: Part) => {
    const at = y(middleX(box));
    return box.top < at - 0.25 * box.height && bottomOf(box) > at + 0.25 * box.height;
  };
  if (near.some((part) => isSolid(part) && crosses(part))) return undefined;
  if (!over.some(isSolid) || !under.some(isSolid)) return undefined;
  const gapOver = Math.min(...over.map(({ box }) => y(middleX(box)) - bottomOf(box)));
  const gapUnder = Math.min(...under.map(({ box }) => box.top - y(middleX(box))));
  return Math.max(gapOver, gapUnder) < FAR * usual ? { is: 'fraction', bar, over, under } : undefined;
}

/** How high a bar is at each place along it; hands draw them a little aslant. */
function heightsOf({ line }: Part): (x: number) => number {
  const [ax, ay, bx, by] = [line[0]!, line[1]!, line.at(-2)!, line.at(-1)!];
  const slope = bx === ax ? 0 : (by - ay) / (bx - ax);
  return (x) => ay + slope * (x - ax);
}

/** Where the bar of a root begins; undefined where a stroke is none. */
function rootBar({ line, box }: Part): number | undefined {
  let lowest = 0;
  for (let i = 0; i < line.length; i += 2) if (line[i + 1]! > line[lowest + 1]!) lowest = i;
  const turn = line[lowest]!;
  if (turn > box.left + 0.6 * box.width || lowest === 0 || line[0]! > turn) return undefined;
  const high = box.top + 0.28 * box.height;
  let up = lowest;
  while (up < line.length && line[up + 1]! > high) up += 2;
  if (up >= line.length) return undefined;
  // Long bars are drawn aslant.
  const low = high + 0.08 * box.height + 0.05 * box.width;
  for (let i = up; i < line.length; i += 2) if (line[i + 1]! > low) return undefined;
  const bar = line[up]!;
  const isBent = line[1]! > box.top + 0.15 * box.height;
  return line.at(-2)! - bar > 0.3 * box.height && isBent ? bar : undefined;
}

function rootOf(sign: Part, parts: readonly Part[], usual: number): Frame | undefined {
  const { box } = sign;
  const bar = sizeOf(box) > 0.6 * usual ? rootBar(sign) : undefined;
  if (bar === undefined) return undefined;
  const others = parts.filter((part) => part !== sign);
  const of = others.filter(
    (part) =>
      middleX(part.box) > bar &&
      (middleX(part.box) < rightOf(box) + 0.18 * usual || part.box.left < rightOf(box) - 0.1 * usual) &&
      middleY(part.box) > box.top - 0.1 * box.height &&
      middleY(part.box) < bottomOf(box) + 0.15 * box.height,
  );
  if (of.length === 0) return undefined;
  const degree = others.filter(
    (part) =>
      !of.includes(part) &&
      part.box.height < 0.55 * box.height &&
      rightOf(part.box) < bar + 0.1 * usual &&
      middleX(part.box) > box.left - 0.45 * usual &&
      bottomOf(part.box) < box.top + 0.62 * box.height &&
      bottomOf(part.box) > box.top - 0.1 * box.height,
  );
  return { is: 'root', sign, of, degree };
}
