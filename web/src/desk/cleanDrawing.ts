import type { Change, InkStyle, Mark, MarkOf } from '@doodla/core';
import { boundsOf } from '@doodla/core';
import type { LineDrawing } from '@doodla/core/drawings';
import { placedDrawing } from '@doodla/core/drawings';
import { t } from '../words';
import { asGroup } from './asGroup';
import type { Desk } from './desk';
import type { DrawingsWorker } from './drawings.worker';
import type { DrawingOffer } from './shapeOffer';
import { WorkerLink } from './workerLink';

type Ink = MarkOf<'stroke'>;
export type CleanDesk = Pick<
  Desk,
  'mayTouch' | 'newMark' | 'pageId' | 'shapeOffer' | 'target' | 'targetMarks' | 'tellProblem'
>;

/** Finds the drawings that ink is likest to; in a worker, but for tests. */
export type DrawingFinder = (strokes: readonly (readonly number[])[]) => Promise<readonly LineDrawing[]>;

/** So many are offered. */
const OFFERED = 12;

const link = new WorkerLink<DrawingsWorker>(
  () => new Worker(new URL('./drawings.worker.ts', import.meta.url), { type: 'module' }),
);

/** Offers the clean drawings that ink may be meant for, the likeliest first; nothing is changed by that. */
export async function offerDrawings(
  desk: CleanDesk,
  marks: readonly Mark[],
  find: DrawingFinder = (strokes) => link.ask((worker) => worker.likest(strokes, OFFERED)),
): Promise<void> {
  const page = desk.pageId.get();
  const ink = marks.filter((mark): mark is Ink => mark.kind === 'stroke' && desk.mayTouch(mark));
  const drawings = await find(ink.map(({ points }) => points)).catch(() => undefined); // Told in the next line.
  if (!drawings) return desk.tellProblem(t('drawings.notReached'));
  if (drawings.length === 0 || page === undefined) return desk.tellProblem(t('drawings.none'));
  // Somebody may have wiped the ink away meanwhile.
  if (ink.every(({ id }) => desk.targetMarks?.get(id))) desk.shapeOffer.set({ page, ink, drawings });
}

/** Puts a clean drawing in the place of the ink, or of the one that was taken before, in one step. */
export function takeDrawing(desk: CleanDesk, offer: DrawingOffer, drawing: LineDrawing, name: string): void {
  if (offer.taken) desk.target.takeBack(offer.taken.step);
  const { ink, page, drawings } = offer;
  const marks = drawnInPlaceOf(desk, ink, drawing).map((mark, i) =>
    i === 0 ? { ...mark, alt: name } : mark,
  );
  const step = desk.target.perform([
    ...ink.map(({ id }): Change => ({ do: 'remove', mark: id })),
    ...marks.map((mark): Change => ({ do: 'add', mark })),
  ]);
  const taken = step !== undefined && { drawing: drawing.id, marks: marks.map(({ id }) => id), step };
  desk.shapeOffer.set({ page, ink, drawings, ...(taken && { taken }) });
}

/** Gives the ink back. */
export function asDrawn(desk: CleanDesk, { taken }: DrawingOffer): void {
  if (taken) desk.target.takeBack(taken.step);
  desk.shapeOffer.set(undefined);
}

function drawnInPlaceOf(desk: CleanDesk, ink: readonly Ink[], drawing: LineDrawing): Mark[] {
  const common = desk.newMark();
  const [first] = ink;
  if (!common || !first) return [];
  const { page, space, order, pane } = first;
  const own = { ...common, page, space, order, ...(pane !== undefined && { pane }) };
  return asGroup(own, placedDrawing(drawing, inkBox(ink), lookOf(first)));
}

/** The places that ink goes through, without the breadth of its lines. */
function inkBox(ink: readonly Ink[]) {
  const box = boundsOf(ink)!;
  const half = Math.min(ink[0]!.style.width, box.width, box.height) / 2;
  return { x: box.x + half, y: box.y + half, width: box.width - 2 * half, height: box.height - 2 * half };
}

/** Where ink was highlighter, the drawing is a pen's. */
function lookOf({ style }: Ink): InkStyle {
  return style.nature === 'highlighter' ? { ...style, nature: 'pen' } : style;
}
