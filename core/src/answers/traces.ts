import type { TraceLine } from '../marks/answerRule.js';
import type { Point } from '../marks/kind.js';
import type { Mark } from '../marks/mark.js';
import type { AnsweredPage, Answer } from './standingIn.js';
import { countsOf, standInFor } from './standingIn.js';

/** So far off an end may be, of the distance between two ends. */
const NEAR = 0.6;

/** What comes of a line that a hand draws over a mark on which lines are to be found, either way. Page units. */
export function traced(page: AnsweredPage, mark: Mark, hand: { from: Point; to: Point }): Answer {
  const { trace } = mark.rule ?? {};
  if (!trace) return { marks: [] };
  const line = trace.lines.find((one) => isAlong(one, hand, trace.step * NEAR));
  if (!line) {
    const { tries } = countsOf(page.now(mark.id));
    return { marks: [standInFor(page, mark, {}, { tries: tries + 1 })], verdict: 'wrong' };
  }
  const found = line.marks.flatMap((id) => page.original(id) ?? []);
  const isKnown = found.every(({ id }) => page.now(id)?.hidden !== true);
  if (isKnown) return { marks: [] };
  return {
    marks: found.map((one) => standInFor(page, one, { hidden: false }, { by: mark.id })),
    verdict: 'right',
  };
}

function isAlong({ from, to }: TraceLine, hand: { from: Point; to: Point }, near: number): boolean {
  const isAt = (a: readonly [number, number], b: Point) => Math.hypot(a[0] - b[0], a[1] - b[1]) <= near;
  return (isAt(from, hand.from) && isAt(to, hand.to)) || (isAt(from, hand.to) && isAt(to, hand.from));
}
