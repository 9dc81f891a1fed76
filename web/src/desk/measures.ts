import type { Change, Figure, Gauge, Mark, MarkOf, Point } from '@doodla/core';
import { cornerChanges, pathThrough, withCorners } from '@doodla/core';
import type { Outline } from '@doodla/core/measure';
import { gaugeOf, outlineOf, withAngle, withSide } from '@doodla/core/measure';
import { nanoid } from 'nanoid';
import { language } from '../words';
import type { Desk } from './desk';
import type { Selection } from './selection';

export type Measurable = MarkOf<'path' | 'shape'>;
export type MeasureDesk = Pick<Desk, 'isTeacher' | 'mayTouch' | 'page' | 'target' | 'targetMarks'> & {
  selection: Pick<Selection, 'select'>;
};

export const isMeasurable = (mark: Mark): mark is Measurable => mark.kind === 'path' || mark.kind === 'shape';

/** Whether decimals follow a comma in the language of whoever works here. */
export function writesComma(): boolean {
  return new Intl.NumberFormat(language()).format(0.5).includes(',');
}

/** How lengths are said on the shown page. */
export function pageGauge({ page }: Pick<Desk, 'page'>): Gauge {
  return page?.gauge ?? gaugeOf('cm', page, writesComma());
}

/** Shows a figure of some marks, or no longer. */
export function showFigure(
  desk: MeasureDesk,
  marks: readonly Measurable[],
  figure: Figure,
  on: boolean,
): void {
  const gauge = pageGauge(desk);
  const changes = marks
    .filter((mark) => desk.mayTouch(mark))
    .map(({ id, measures }): Change => {
      const others = (measures?.shown ?? []).filter((shown) => shown !== figure);
      return {
        do: 'patch',
        mark: id,
        set: { measures: { gauge: measures?.gauge ?? gauge, shown: on ? [...others, figure] : others } },
      };
    });
  if (changes.length > 0) desk.target.perform(changes);
}

/** Says all lengths of the shown page in a gauge, of what is there and of what is to come. */
export function setGauge(desk: MeasureDesk, gauge: Gauge): void {
  const { page } = desk;
  if (!page) return;
  const measured = (desk.targetMarks?.all() ?? []).filter(
    (mark): mark is Measurable => isMeasurable(mark) && mark.measures !== undefined && desk.mayTouch(mark),
  );
  desk.target.perform([
    ...(desk.isTeacher ? [{ do: 'patchPage', page: page.id, set: { gauge } } as const] : []),
    ...measured.map(({ id, measures }): Change => ({
      do: 'patch',
      mark: id,
      set: { measures: { ...measures!, gauge } },
    })),
  ]);
}

/** Gives a side a length in page units. Throws ImpossibleFigure. */
export function setSide(desk: MeasureDesk, mark: Measurable, side: number, length: number): void {
  const outline = outlineOf(mark);
  if (outline.kind === 'corners') putCorners(desk, mark, withSide(outline, side, length));
}

/** Gives the angle at a corner a size in degrees. Throws ImpossibleFigure. */
export function setAngle(desk: MeasureDesk, mark: Measurable, corner: number, degrees: number): void {
  const outline = outlineOf(mark);
  if (outline.kind === 'corners') putCorners(desk, mark, withAngle(outline, corner, degrees));
}

/** Gives a circle or arc a radius in page units; its middle stays. */
export function setRadius(desk: MeasureDesk, mark: Measurable, radius: number): void {
  const changes = radiusChanges(outlineOf(mark), mark, radius);
  if (changes) desk.target.perform(changes);
}

function radiusChanges(outline: Outline, mark: Measurable, radius: number): Change[] | undefined {
  if (outline.kind === 'ellipse' && mark.kind === 'shape') {
    const [x, y] = outline.centre;
    const box = { x: x - radius, y: y - radius, width: 2 * radius, height: 2 * radius };
    return [{ do: 'patch', mark: mark.id, set: box }];
  }
  if (outline.kind !== 'arc') return undefined;
  const [cx, cy] = outline.centre;
  const by = radius / outline.radius;
  const points = outline.points.flatMap(([x, y]) => [cx + (x - cx) * by, cy + (y - cy) * by]);
  return [{ do: 'patch', mark: mark.id, set: { points } }];
}

function putCorners(desk: MeasureDesk, mark: Measurable, corners: readonly Point[]): void {
  const path = withCorners(mark, nanoid);
  if (!path) return;
  const changed = pathThrough({ ...path, course: 'straight' }, corners);
  if (desk.target.perform(cornerChanges(mark, changed)) !== undefined) desk.selection.select([changed.id]);
}
