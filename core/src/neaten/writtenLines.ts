import { STRIDE } from '../ink/points.js';

interface Box {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

/** A line that nearly is level becomes so; one that is meant to climb keeps its direction, degrees. */
const NEARLY_LEVEL = 12;
/** A stroke belongs to the letter before it where so much of the narrower one lies over or under it. */
const OVERLAP = 0.45;
/** Strokes whose middles are farther apart than this part of the usual height are on lines of their own. */
const LINE_GAP = 1.1;

/** Strokes that lie over each other: a letter, or letters that are joined. Mapping it changes the strokes themselves. */
export class Letter {
  constructor(readonly strokes: readonly number[][]) {}

  box(): Box {
    const boxes = this.strokes.map(boxOf);
    return {
      left: Math.min(...boxes.map(({ left }) => left)),
      right: Math.max(...boxes.map(({ right }) => right)),
      top: Math.min(...boxes.map(({ top }) => top)),
      bottom: Math.max(...boxes.map(({ bottom }) => bottom)),
    };
  }

  map(move: (x: number, y: number) => readonly [number, number]): void {
    for (const points of this.strokes)
      for (let i = 0; i + 1 < points.length; i += STRIDE) {
        const [x, y] = move(points[i]!, points[i + 1]!);
        points[i] = x;
        points[i + 1] = y;
      }
  }
}

/** A written line: its letters from left to right. */
export class WrittenLine {
  constructor(readonly letters: readonly Letter[]) {}

  /** Height of a small letter: of most there are, page units. */
  get xHeight(): number {
    const heights = this.letters.map((letter) => letter.box()).map(({ top, bottom }) => bottom - top);
    const sorted = heights.toSorted((a, b) => a - b);
    return Math.max(1, sorted[Math.floor(sorted.length * 0.4)] ?? 1);
  }

  /** Where most letters stand. */
  get base(): number {
    const bottoms = this.letters.map((letter) => letter.box().bottom).toSorted((a, b) => a - b);
    return bottoms[Math.floor(bottoms.length / 2)]!;
  }

  /**
   * Turns the line about its middle so that the base line is level, if it nearly is. The base line is that of Theil (1950) and Sen
   * (1968): the middle of the directions of all pairs, which letters that go below do not mislead.
   */
  level(): void {
    const feet = this.letters
      .map((letter) => letter.box())
      .map(({ left, right, bottom }) => [(left + right) / 2, bottom] as const);
    const slopes: number[] = [];
    for (let i = 0; i < feet.length; i++)
      for (let k = i + 1; k < feet.length; k++) {
        const [dx, dy] = [feet[k]![0] - feet[i]![0], feet[k]![1] - feet[i]![1]];
        if (dx > this.xHeight) slopes.push(dy / dx);
      }
    if (slopes.length < 3) return;
    const angle = Math.atan(slopes.toSorted((a, b) => a - b)[Math.floor(slopes.length / 2)]!);
    if (Math.abs(angle) > (NEARLY_LEVEL * Math.PI) / 180) return;
    const [cos, sin] = [Math.cos(-angle), Math.sin(-angle)];
    const cx = feet.reduce((sum, [x]) => sum + x, 0) / feet.length;
    const cy = this.base;
    for (const letter of this.letters)
      letter.map((x, y) => [cx + (x - cx) * cos - (y - cy) * sin, cy + (x - cx) * sin + (y - cy) * cos]);
  }
}

/** Strokes as written lines, from the top; the strokes are changed when their letters are. */
export function writtenLines(strokes: readonly number[][]): WrittenLine[] {
  const placed = strokes.map((points) => ({ points, box: boxOf(points) }));
  const heights = placed.map(({ box }) => box.bottom - box.top).toSorted((a, b) => a - b);
  const usual = heights[Math.floor(heights.length / 2)] ?? 0;
  const lines: (typeof placed)[] = [];
  const middle = ({ box }: (typeof placed)[0]) => (box.top + box.bottom) / 2;
  for (const one of placed.toSorted((a, b) => middle(a) - middle(b))) {
    const line = lines.at(-1);
    const mean = line && line.reduce((sum, other) => sum + middle(other), 0) / line.length;
    if (mean !== undefined && middle(one) - mean <= LINE_GAP * Math.max(usual, 4)) line!.push(one);
    else lines.push([one]);
  }
  return lines.map((line) => new WrittenLine(lettersOf(line)));
}

function lettersOf(line: readonly { points: number[]; box: Box }[]): Letter[] {
  const letters: { strokes: number[][]; box: Box }[] = [];
  for (const { points, box } of line.toSorted((a, b) => a.box.left - b.box.left)) {
    const last = letters.at(-1);
    const shared = last ? Math.min(last.box.right, box.right) - Math.max(last.box.left, box.left) : -1;
    const narrower = last ? Math.min(last.box.right - last.box.left, box.right - box.left) : 0;
    if (last && shared >= OVERLAP * narrower && shared >= 0) {
      last.strokes.push(points);
      last.box = {
        left: Math.min(last.box.left, box.left),
        right: Math.max(last.box.right, box.right),
        top: Math.min(last.box.top, box.top),
        bottom: Math.max(last.box.bottom, box.bottom),
      };
    } else letters.push({ strokes: [points], box });
  }
  return letters.map(({ strokes }) => new Letter(strokes));
}

function boxOf(points: readonly number[]): Box {
  let [left, right, top, bottom] = [Infinity, -Infinity, Infinity, -Infinity];
  for (let i = 0; i + 1 < points.length; i += STRIDE) {
    left = Math.min(left, points[i]!);
    right = Math.max(right, points[i]!);
    top = Math.min(top, points[i + 1]!);
    bottom = Math.max(bottom, points[i + 1]!);
  }
  return { left, right, top, bottom };
}
