import type { Change, Mark, Page, Rect } from '@doodla/core';
import { byOrder, copiesOf, FORMATS, ordersAt, ordersBeside } from '@doodla/core';
import type { ExerciseMark } from '@doodla/core/exercises';
import { nanoid } from 'nanoid';
import type { PageDesk } from '../room/pageDesk';

type Putting = Pick<PageDesk, 'layers' | 'newMark' | 'page' | 'settle' | 'target'>;

/** Size of the page that an exercise gets: that of the shown one, where that is a sheet of paper. */
export function sheetSize(page: Page | undefined): { width: number; height: number } {
  if (page?.surface.kind !== 'blank' || page.surface.boundless) return FORMATS.wide;
  const { width, height } = page;
  return { width, height };
}

/** Where an exercise goes on a page. */
export function roomOn(page: Page | undefined, isNew: boolean): Rect {
  const { width, height } = isNew || !page ? sheetSize(page) : page;
  return { x: 0, y: 0, width, height };
}

/** Puts an exercise on the shown page, or on a new one after it, as one step. Returns the page and the step; undefined where it may not be. */
export function putExercise(
  desk: Putting,
  marks: readonly ExerciseMark[],
  { isNew, title }: { isNew: boolean; title: string },
): { page: string; step: string } | undefined {
  const { page } = desk;
  if (!page) return undefined;
  desk.settle();
  const id = isNew ? nanoid() : page.id;
  const common = desk.newMark(undefined, id);
  if (!common) return undefined;
  const there = isNew ? [] : [...desk.layers.at(-1)!.on(id).all()].sort(byOrder);
  const orders = ordersAt(there, there.length, marks.length);
  const whole = marks.map((mark, i): Mark => ({ ...common, ...mark, space: 'class', order: orders[i]! }));
  const adds = copiesOf(whole, () => nanoid()).map((mark): Change => ({ do: 'add', mark }));
  const changes = isNew ? [newPage(desk, id, page, title), ...adds] : adds;
  const step = desk.target.perform(changes);
  return step === undefined ? undefined : { page: id, step };
}

function newPage({ target }: Putting, id: string, beside: Page, title: string): Change {
  const [order] = ordersBeside(target.state.pages.values(), beside.id, { where: 'after', count: 1 });
  const surface = { kind: 'blank', colour: '#ffffff', ruling: 'plain', spacing: 5 } as const;
  return { do: 'addPage', page: { id, order: order!, title, ...sheetSize(beside), surface, removed: false } };
}
