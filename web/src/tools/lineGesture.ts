import type { Anchor, MarkOf } from '@doodla/core';
import { anchorAt } from '@doodla/core';
import type { Workspace } from '../workspace/workspace';
import { LINE_TYPES } from '../workspace/penCase';
import type { Gesture, PenPoint, Preview } from './gesture';
import { snapAngle } from './gesture';

/** A line shorter than this was a slip of the hand; page units. */
const LEAST_LENGTH = 6;

/** Draws a line, arrow, connector or curve from where one presses to where one lets go. */
export class LineGesture implements Gesture {
  private last: PenPoint;
  private readonly mark: MarkOf<'path'> | undefined;

  constructor(
    private readonly workspace: Workspace,
    private readonly start: PenPoint,
  ) {
    this.last = start;
    const { line, outline } = workspace.penCase.get();
    const { course, heads, closed } = LINE_TYPES[line];
    const common = workspace.newMark();
    this.mark = common && {
      ...common,
      kind: 'path',
      course,
      heads,
      closed,
      points: [],
      from: this.anchor(start),
      to: null,
      style: { ...outline, line: outline.line ?? outline.fill, fill: null },
    };
  }

  get preview(): Preview {
    return this.mark && this.isLongEnough ? { marks: [{ ...this.mark, points: this.points() }] } : {};
  }

  move(points: readonly PenPoint[]): void {
    this.last = points.at(-1) ?? this.last;
  }

  end(): void {
    if (!this.mark || !this.isLongEnough) return;
    const mark = { ...this.mark, points: this.points(), to: this.anchor(this.last) };
    this.workspace.target.perform([{ do: 'add', mark }]);
  }

  cancel(): void {
    // Nothing was put on the page yet.
  }

  private get isLongEnough(): boolean {
    return Math.hypot(this.last.x - this.start.x, this.last.y - this.start.y) >= LEAST_LENGTH;
  }

  /** Connectors and arrows stick to what lies under their ends. */
  private anchor({ x, y }: PenPoint): Anchor | null {
    const under = this.workspace.targetMarks?.within({ x, y, width: 0, height: 0 }).at(-1);
    return (under && anchorAt(under, x, y)) ?? null;
  }

  private points(): number[] {
    const { start, last } = this;
    const end = last.steady ? snapAngle(start, last) : last;
    const at = (t: number, side: number) => [
      start.x + (end.x - start.x) * t + (end.y - start.y) * side,
      start.y + (end.y - start.y) * t - (end.x - start.x) * side,
    ];
    const course = this.mark?.course;
    const controls =
      course === 'quadratic'
        ? at(0.5, 0.35)
        : course === 'cubic'
          ? [...at(0.33, 0.4), ...at(0.67, -0.4)]
          : [];
    return [start.x, start.y, ...controls, end.x, end.y].map((value) => Math.round(value * 100) / 100);
  }
}
