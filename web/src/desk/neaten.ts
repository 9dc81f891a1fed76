import type { Change, LineStyle, Mark, MarkOf } from '@doodla/core';
import { boundsOf, growRect } from '@doodla/core';
import type { Reading } from '@doodla/core/neaten';
import { cornersOn, drawingsOf, snapBody } from '@doodla/core/neaten';
import { t } from '../words';
import type { Desk } from './desk';
import type { NeatPart, ShapeOffer } from './shapeOffer';
import type { Asked } from './shapesLink';
import { neatWorker } from './shapesLink';

type Ink = MarkOf<'stroke'>;

/** What neatening needs of a page. */
export type NeatDesk = Pick<
  Desk,
  'mayTouch' | 'newMark' | 'pageId' | 'shapeOffer' | 'target' | 'targetMarks' | 'tellProblem'
>;

/** Says what ink may mean; in a worker, but for tests. */
export type ShapeReader = Pick<Asked, 'readShapes' | 'surelyShape'>;

/** Most readings that are offered, the one that was taken among them. */
export const OFFERED = 4;
/** A drawing that goes on after it became a shape is read anew as a whole so long, ms. */
const GOES_ON = 4000;
/** What selected ink may be off a shape, as part of its size, to be taken for it. */
const MOST_OFF = 0.06;
/** Of several drawings that were selected, writing is left alone. */
const OF_SEVERAL = { least: 24, row: 2 };

/** What was made last while drawing, also when it is no longer offered: the drawing may go on. */
const madeLast = new WeakMap<NeatDesk, ShapeOffer>();

/** What a line that is still being drawn may mean, the likeliest first. */
export async function readInk(
  points: readonly number[],
  read: ShapeReader = neatWorker(),
): Promise<Reading[]> {
  return (await read.readShapes([points])).filter(({ off }) => off <= MOST_OFF).slice(0, OFFERED);
}

/** Makes selected ink neat, one shape of each drawing; says so where there is none. */
export async function neatenMarks(
  desk: NeatDesk,
  marks: readonly Mark[],
  read: ShapeReader = neatWorker(),
): Promise<void> {
  const ink = marks.filter((mark): mark is Ink => mark.kind === 'stroke' && desk.mayTouch(mark));
  const drawings = drawingsOf(ink.map(({ points }) => points)).map((places) => places.map((i) => ink[i]!));
  const several = drawings.length > 1;
  const parts: [Ink[], Reading[]][] = [];
  desk.shapeOffer.set(undefined);
  for (const drawing of drawings) {
    const strokes = drawing.map(({ points }) => points);
    const beside = drawings.flatMap((other) => (other === drawing ? [] : [boundsOf(other)!]));
    const readings = several
      ? await read.surelyShape(strokes, beside, OF_SEVERAL)
      : (await read.readShapes(strokes)).filter(({ off }) => off <= MOST_OFF);
    if (readings.length > 0) parts.push([drawing, readings]);
  }
  if (parts.length === 0) return desk.tellProblem(t('shapes.none'));
  const left = parts.filter(([drawing]) => areThere(desk, drawing));
  if (left.length > 0) replace(desk, left, true);
}

/** Makes a shape of what was just drawn where it surely is one; ink that may be writing is left alone. */
export async function neatenDrawn(
  desk: NeatDesk,
  ids: readonly string[],
  read: ShapeReader = neatWorker(),
): Promise<void> {
  const ink = inkOf(desk, ids);
  if (ink.length === 0) return;
  const made = madeLast.get(desk);
  if (made && Date.now() - made.at < GOES_ON && (await goesOn(desk, made, ink, read))) return;
  const readings = await read.surelyShape(
    ink.map(({ points }) => points),
    besideOf(desk, ink),
  );
  if (readings.length > 0 && areThere(desk, ink)) replace(desk, [[ink, readings]], false);
}

/** A shape that the drawing becomes together with what was just made of its beginning, such as an arrow whose head follows. */
async function goesOn(desk: NeatDesk, offer: ShapeOffer, ink: Ink[], read: ShapeReader): Promise<boolean> {
  const [part] = offer.parts;
  if (!part || !desk.targetMarks?.get(part.mark.id)) return false;
  const whole = [...part.ink, ...ink];
  const strokes = whole.map(({ points }) => points);
  if (drawingsOf(strokes).length > 1) return false;
  const readings = await read.surelyShape(strokes, besideOf(desk, whole));
  if (readings.length === 0 || readings[0]!.kind === 'polyline' || !areThere(desk, ink)) return false;
  desk.target.takeBack(offer.step);
  replace(desk, [[whole, readings]], false);
  return true;
}

/** Puts a shape in the place of a stroke that was drawn to be one. */
export function takeShape(desk: NeatDesk, id: string, readings: readonly Reading[]): void {
  const ink = inkOf(desk, [id]);
  if (ink.length > 0) replace(desk, [[ink, readings]], false);
}

/** Takes another reading of what was just neatened, or the ink as it was drawn. */
export function takeReading(desk: NeatDesk, offer: ShapeOffer, reading: number | 'drawn'): void {
  desk.target.takeBack(offer.step);
  desk.shapeOffer.set(undefined);
  if (reading === 'drawn') return;
  replace(
    desk,
    offer.parts.map(({ ink, readings }) => [ink, readings]),
    offer.selected,
    reading,
  );
}

function replace(
  desk: NeatDesk,
  drawings: readonly (readonly [readonly Ink[], readonly Reading[]])[],
  selected: boolean,
  taken = 0,
): void {
  const used = new Set(drawings.flatMap(([ink]) => ink.map(({ id }) => id)));
  const there = cornersOn((desk.targetMarks?.all() ?? []).filter(({ id }) => !used.has(id)));
  const parts = drawings.flatMap(([ink, readings]): NeatPart[] => {
    const offered = readings.slice(0, OFFERED);
    const mark = shapeOf(desk, ink, offered[taken] ?? offered[0]!, there);
    return mark ? [{ ink, readings: offered, taken, mark }] : [];
  });
  const changes = parts.flatMap(({ ink, mark }): Change[] => [
    ...ink.map(({ id }): Change => ({ do: 'remove', mark: id })),
    { do: 'add', mark },
  ]);
  // What nobody asked for is not refused aloud: where only ink is allowed, ink it stays.
  if (!selected && !desk.target.allows(changes)) return;
  const page = desk.pageId.get();
  const step = changes.length > 0 && page !== undefined ? desk.target.perform(changes) : undefined;
  if (step === undefined) return;
  const offer = { page: page!, parts, step, at: Date.now(), selected };
  desk.shapeOffer.set(offer);
  if (!selected) madeLast.set(desk, offer);
}

/** A reading as a mark with the look, and at the place, of the ink that it stands for. */
export function shapeOf(
  desk: Pick<NeatDesk, 'newMark'>,
  ink: readonly Ink[],
  { kind, body }: Reading,
  there: readonly (readonly [number, number])[],
): MarkOf<'path' | 'shape'> | undefined {
  const [first] = ink;
  const common = desk.newMark();
  if (!first || !common) return undefined;
  const { page, space, order, group, alt, pane } = first;
  const own = { ...common, page, space, order, group, alt, ...(pane !== undefined && { pane }) };
  return { ...own, ...snapBody(kind, body, there), style: lookOf(first) };
}

function lookOf({ style: { colour, width, opacity } }: Ink): LineStyle {
  return { line: colour, width, dash: 'solid', fill: null, opacity };
}

function inkOf(desk: NeatDesk, ids: readonly string[]): Ink[] {
  return ids.flatMap((id) => {
    const mark = desk.targetMarks?.get(id);
    return mark?.kind === 'stroke' && desk.mayTouch(mark) ? [mark] : [];
  });
}

/** Whether nobody has wiped the ink away meanwhile. */
function areThere(desk: NeatDesk, ink: readonly Ink[]): boolean {
  return ink.every(({ id }) => desk.targetMarks?.get(id) !== undefined);
}

/** Bounds of other ink near some. */
function besideOf(desk: NeatDesk, ink: readonly Ink[]) {
  const bounds = boundsOf(ink)!;
  const near = desk.targetMarks?.within(growRect(bounds, bounds.height)) ?? [];
  const own = new Set(ink.map(({ id }) => id));
  return near.flatMap((mark) => (mark.kind === 'stroke' && !own.has(mark.id) ? [boundsOf([mark])!] : []));
}
