import { snapAngle } from '@doodla/core';
import { LINE_TYPES } from './facts';
import type { Desk } from '../../desk/desk';
import type { Preview } from '../../canvas/preview';
import type { Gesture, PenPoint } from '../../desk/gesture';

type CornerDesk = Pick<Desk, 'draft' | 'newMark' | 'penCase' | 'target'>;

/** Clicks the corners of a polyline or polygon; a click on the first or last corner finishes it. */
export class CornerGesture implements Gesture {
  private last: PenPoint;

  constructor(
    private readonly desk: CornerDesk,
    start: PenPoint,
    private readonly reach: number,
  ) {
    this.last = start;
  }

  get preview(): Preview {
    return { area: [...this.draft, this.last.x, this.last.y] };
  }

  move(points: readonly PenPoint[]): void {
    this.last = points.at(-1) ?? this.last;
  }

  end(): void {
    const { draft } = this;
    const isEnd =
      draft.length >= 4 && (this.isNear(draft[0]!, draft[1]!) || this.isNear(draft.at(-2)!, draft.at(-1)!));
    if (isEnd) return finishDraft(this.desk);
    const before = { x: draft.at(-2) ?? this.last.x, y: draft.at(-1) ?? this.last.y };
    const { x, y } = this.last.steady ? snapAngle(before, this.last) : this.last;
    this.desk.draft.set([...draft, round(x), round(y)]);
  }

  cancel(): void {
    // The corners clicked before stay.
  }

  private get draft(): readonly number[] {
    return this.desk.draft.get() ?? [];
  }

  private isNear(x: number, y: number): boolean {
    return Math.hypot(this.last.x - x, this.last.y - y) < this.reach * 1.5;
  }
}

const round = (value: number) => Math.round(value * 100) / 100;

/** Makes the clicked corners a mark; fewer than two make none. */
export function finishDraft(desk: CornerDesk): void {
  const points = desk.draft.get();
  const common = desk.newMark();
  desk.draft.set(undefined);
  if (!points || points.length < 4 || !common) return;
  const { line, outline } = desk.penCase.get();
  const { course, heads, closed } = LINE_TYPES[line];
  const style = closed ? outline : { ...outline, line: outline.line ?? outline.fill, fill: null };
  const mark = {
    ...common,
    kind: 'path' as const,
    course,
    heads,
    closed,
    points,
    from: null,
    to: null,
    style,
  };
  desk.target.perform([{ do: 'add', mark }]);
}
