import type { Change, LineStyle, Mark, MarkOf } from '@doodla/core';
import type { Edge } from '@doodla/core/construct';
import { markBounds, orderOnTop } from '@doodla/core';
import { edgesOf, SnapField } from '@doodla/core/construct';
import { nanoid } from 'nanoid';
import type { Desk } from './desk';

/** Constructed lines are thinner than what they are constructed on may be; page units. */
const THICKEST = 2;

/** Lines, shapes and ink by which others are drawn exactly: so many of those nearest. */
const MOST_NEAR = 300;
const EXACT = new Set<Mark['kind']>(['path', 'plot', 'shape', 'stroke']);

type MarksDesk = Pick<Desk, 'layers' | 'pageId'>;

/** What can be met on the shown page by what is drawn or laid near a place, in all layers. */
function near({ layers, pageId }: MarksDesk, { x, y }: { x: number; y: number }): Mark[] {
  const page = pageId.get();
  if (page === undefined) return [];
  const marks = layers.flatMap((layer) => layer.on(page).all()).filter(({ kind }) => EXACT.has(kind));
  if (marks.length <= MOST_NEAR) return marks;
  const far = (mark: Mark) => {
    const box = markBounds(mark);
    return Math.hypot(box.x + box.width / 2 - x, box.y + box.height / 2 - y);
  };
  return marks
    .map((mark) => ({ mark, at: far(mark) }))
    .sort((a, b) => a.at - b.at)
    .slice(0, MOST_NEAR)
    .map(({ mark }) => mark);
}

/** Points and directions near a place, by which lines are drawn and instruments laid exactly. */
export function snapField(desk: MarksDesk, place: { x: number; y: number }): SnapField {
  return new SnapField(near(desk, place));
}

/** The straight edges near a place. */
export function edgesNear(desk: MarksDesk, place: { x: number; y: number }): Edge[] {
  return near(desk, place).flatMap(edgesOf);
}

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
