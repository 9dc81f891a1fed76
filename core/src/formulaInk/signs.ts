import { featuresOf } from '../handwriting/features.js';
import type { LetterNet } from '../handwriting/letterNet.js';
import { isDot, isFlat } from './frames.js';
import type { Part } from './parts.js';
import { bottomOf, boxRound, middleX, rightOf, sizeOf } from './parts.js';

/** What a group of strokes may be, and what that costs; less is likelier. */
export interface Label {
  name: string;
  cost: number;
}

export interface Sign {
  parts: readonly Part[];
  box: Part['box'];
  labels: readonly Label[];
}

/** One way to take strokes together as signs. */
export interface Grouping {
  signs: readonly Sign[];
  cost: number;
}

/** Strokes belong to one sign only where they are so near, in usual sizes. */
const NEAR = {
  beside: 0.12,
  inside: 0.25,
  ring: 0.45,
  over: 0.5,
  dots: 0.95,
  middle: 0.14,
  dot: 0.25,
  share: 0.5,
  alike: 0.55,
  bars: 0.75,
};
const MOST_STROKES = 4;
/** Every sign costs something, so that strokes are taken together rather than apart. */
const PER_SIGN = 1;
/** Sizes that tell a dot from a minus, in usual sizes, and how fast doubt grows. */
const SHORT = { dot: 0.2, minus: 0.62, slope: 6 };
const LABELS = 6;
const [BEAM, GROUPINGS] = [40, 5];
/** Signs of so many strokes at least, and those that everybody writes in one. */
const LEAST_STROKES: Readonly<Record<string, number>> = { '=': 2, '≤': 2, '≥': 2, '≈': 2, '!': 2, ':': 2, '%': 2, '≠': 3, '±': 3, '÷': 3 }; // prettier-ignore
const DOTTED = new Set([...'i!÷%']);
const DOTTED_COST = 0.8;
const OF_ONE = new Set([...'−√∫·o0236()/|<>∞cseSC']);

/** The likeliest ways to take strokes together as signs. */
export function groupingsOf(parts: readonly Part[], usual: number, net: LetterNet): Grouping[] {
  if (parts.length === 0) return [{ signs: [], cost: 0 }];
  const sorted = [...parts].sort((a, b) => a.box.left - b.box.left);
  const candidates = candidatesBy(sorted, usual, net);
  interface State {
    done: ReadonlySet<Part>;
    signs: readonly Sign[];
    cost: number;
  }
  let open: State[] = [{ done: new Set(), signs: [], cost: 0 }];
  const whole: State[] = [];
  while (open.length > 0) {
    const next = new Map<string, State>();
    for (const state of open) {
      const first = sorted.find((part) => !state.done.has(part));
      if (!first) {
        whole.push(state);
        continue;
      }
      for (const sign of candidates.get(first) ?? []) {
        if (sign.parts.some((part) => state.done.has(part))) continue;
        const signs = [...state.signs, sign];
        const cost = state.cost + sign.labels[0]!.cost + PER_SIGN;
        const key = signs.map((each) => each.parts.map((part) => sorted.indexOf(part)).join('.')).sort().join(' '); // prettier-ignore
        next.set(key, { done: new Set([...state.done, ...sign.parts]), signs, cost });
      }
    }
    open = [...next.values()]
      .sort((a, b) => a.cost / (a.done.size + 1) - b.cost / (b.done.size + 1))
      .slice(0, BEAM);
  }
  return whole.sort((a, b) => a.cost - b.cost).slice(0, GROUPINGS);
}

/** Groups of strokes that may be a sign, by each stroke in them. */
function candidatesBy(parts: readonly Part[], usual: number, net: LetterNet): Map<Part, Sign[]> {
  const near = new Map(parts.map((part) => [part, parts.filter((other) => other !== part && areNear(part, other, usual))])); // prettier-ignore
  const by = new Map<Part, Sign[]>(parts.map((part) => [part, []]));
  const seen = new Set<string>();
  const grow = (group: readonly Part[]) => {
    const key = group.map((part) => parts.indexOf(part)).sort((a, b) => a - b).join(); // prettier-ignore
    if (seen.has(key)) return;
    seen.add(key);
    const labels = labelsOf(group, usual, net);
    const sign = { parts: group, box: boxRound(group.map(({ box }) => box)), labels };
    if (labels.length > 0) for (const part of group) by.get(part)!.push(sign);
    if (group.length === MOST_STROKES) return;
    for (const other of new Set(group.flatMap((part) => near.get(part)!)))
      if (!group.includes(other)) grow([...group, other]);
  };
  for (const part of parts) grow([part]);
  return by;
}

/** Whether strokes may be of one sign: they touch, or stand closely over each other. */
function areNear(a: Part, b: Part, usual: number): boolean {
  const [p, q] = [a.box, b.box];
  const overlap = Math.min(rightOf(p), rightOf(q)) - Math.max(p.left, q.left);
  const narrower = Math.max(1, Math.min(p.width, q.width));
  const gapY = Math.max(p.top, q.top) - Math.min(bottomOf(p), bottomOf(q));
  const isOver = overlap > NEAR.share * narrower || Math.abs(middleX(p) - middleX(q)) < NEAR.middle * usual;
  if (isOver && [a, b].every((part) => isFlat(part) && !isDot(part, usual))) {
    const alike = narrower / Math.max(p.width, q.width);
    return alike > NEAR.alike && gapY < NEAR.bars * Math.max(p.width, q.width);
  }
  if (gapY > 0 && isOver) {
    const areDots = isDot(a, usual) && isDot(b, usual);
    return gapY < (areDots ? NEAR.dots : NEAR.over) * usual;
  }
  const hasRing = isRing(a, usual) || isRing(b, usual);
  if (gapY > 0 && !hasRing) return false;
  if (overlap < -NEAR.ring * usual) return false;
  const near = hasRing ? NEAR.ring : isOver ? NEAR.inside : NEAR.beside;
  return distance(a.line, b.line) < near * usual;
}

/** Whether a stroke is a small ring, as those of a per cent sign. */
function isRing({ box, line }: Part, usual: number): boolean {
  const size = sizeOf(box);
  const ends = Math.hypot(line[0]! - line.at(-2)!, line[1]! - line.at(-1)!);
  return (
    size < 0.5 * usual && ends < 0.5 * size && box.height > 0.4 * box.width && !isDot({ box, line }, usual)
  );
}

/** How near two lines come to each other, by their points. */
function distance(a: readonly number[], b: readonly number[]): number {
  let least = Infinity;
  for (let i = 0; i < a.length; i += 2)
    for (let j = 0; j < b.length; j += 2)
      least = Math.min(least, Math.hypot(a[i]! - b[j]!, a[i + 1]! - b[j + 1]!));
  return least;
}

function labelsOf(group: readonly Part[], usual: number, net: LetterNet): Label[] {
  const [only, ...others] = group as [Part, ...Part[]];
  if (others.length === 0 && (isFlat(only) || isDot(only, usual))) return dotOrMinus(only, usual);
  if (group.every((part) => isDot(part, usual))) return group.length === 2 ? [{ name: ':', cost: 0.3 }] : [];
  const hasDot = group.some((part) => sizeOf(part.box) < SHORT.dot * usual);
  const judged = net.judge(featuresOf(group.map(({ line }) => line)));
  const fits = (name: string) =>
    group.length >= (LEAST_STROKES[name] ?? 1) &&
    !(group.length > 1 && OF_ONE.has(name)) &&
    (!hasDot || DOTTED.has(name));
  const labels = judged.likely
    .map((c) => ({ name: net.characters[c]!, cost: judged.costs[c]! }))
    .filter(({ name }) => fits(name))
    .slice(0, LABELS);
  const dotted = hasDot && group.length === 2 ? dottedName(group) : undefined;
  if (dotted === undefined || labels[0]?.name === dotted) return labels;
  return [{ name: dotted, cost: DOTTED_COST }, ...labels.filter(({ name }) => name !== dotted)];
}

/** A stroke with a dot over it is an i, one with a dot under it an exclamation mark, wherever exactly the dot is. */
function dottedName(group: readonly Part[]): string | undefined {
  const [dot, stroke] = [...group].sort((a, b) => sizeOf(a.box) - sizeOf(b.box)) as [Part, Part];
  if (stroke.box.height < 2 * stroke.box.width) return undefined;
  if (bottomOf(dot.box) < stroke.box.top) return 'i';
  return dot.box.top > bottomOf(stroke.box) ? '!' : undefined;
}

/** A short stroke is a dot, a longer level one a minus; between the two both are possible. */
function dotOrMinus(part: Part, usual: number): Label[] {
  const size = sizeOf(part.box) / usual;
  const dot = 0.2 + Math.max(0, size - SHORT.dot) * SHORT.slope;
  const minus = isFlat(part) || size < SHORT.dot ? 0.1 + Math.max(0, SHORT.minus - size) * SHORT.slope : 9;
  return [
    { name: '·', cost: dot },
    { name: '.', cost: dot },
    { name: '−', cost: minus },
  ]
    .filter(({ cost }) => cost < 8)
    .sort((a, b) => a.cost - b.cost);
}
