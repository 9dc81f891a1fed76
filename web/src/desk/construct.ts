import type { Change, LineStyle, Mark, MarkOf } from '@doodla/core';
import type { Edge } from '@doodla/core/construct';
import { orderOnTop } from '@doodla/core';
import { nanoid } from 'nanoid';
import type { Desk } from './desk';

/** Constructed lines are thinner than what they are constructed on may be; page units. */
const THICKEST = 2;

/** Plain lines on the page, that belong together, in the look of the mark that they come from. */
export function lineMarks(desk: Pick<Desk, 'newMark'>, edges: readonly Edge[], like: Mark): MarkOf<'path'>[] {
  const common = desk.newMark();
  if (!common) return [];
  const { space, pane } = like;
  const group = nanoid();
  let { order } = common;
  return edges.map(([a, b]) => {
    const own = { ...common, id: nanoid(), order, group, space, ...(pane !== undefined && { pane }) };
    order = orderOnTop([order]);
    const points = [...a, ...b].map((value) => Math.round(value * 100) / 100);
    return {
      ...own,
      ...{ kind: 'path', course: 'straight', closed: false, heads: 'none', from: null, to: null },
      ...{ points, style: lookLike(like) },
    } as const;
  });
}

/** Puts constructed lines on the page, in one step. */
export function putLines(desk: Pick<Desk, 'newMark' | 'target'>, edges: readonly Edge[], like: Mark): void {
  const changes = lineMarks(desk, edges, like).map((mark): Change => ({ do: 'add', mark }));
  if (changes.length > 0) desk.target.perform(changes);
}

function lookLike({ style }: Mark): LineStyle {
  const line = 'line' in style ? (style.line ?? style.fill) : null;
  const width = 'width' in style ? Math.min(style.width, THICKEST) : THICKEST;
  return { line: line ?? '#000000', width, dash: 'solid', fill: null, opacity: 1 };
}
