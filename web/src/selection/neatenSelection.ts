import type { Mark } from '@doodla/core';
import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';

/** Makes the selected ink neat, and selects the shapes instead of it. */
export async function neatenSelection(desk: PageDesk, marks: readonly Mark[]): Promise<void> {
  const neaten = await import('../desk/neaten').catch(() => undefined); // Told in the next line.
  if (!neaten) return desk.tellProblem(t('shapes.notReached'));
  try {
    await neaten.neatenMarks(desk, marks);
  } catch {
    // What neatens could not be fetched: nothing has changed.
    return desk.tellProblem(t('shapes.notReached'));
  }
  const offer = desk.shapeOffer.get();
  if (offer && 'parts' in offer) desk.selection.select(offer.parts.map(({ mark }) => mark.id));
}

/** Types selected handwriting out. */
export async function typeSelection(desk: PageDesk, marks: readonly Mark[]): Promise<void> {
  const writing = await import('../desk/typeWriting').catch(() => undefined); // Told in the next line.
  if (!writing) return desk.tellProblem(t('shapes.notReached'));
  desk.selection.clear();
  await writing.typeWriting(desk, marks);
}

/** Offers clean drawings for what was drawn roughly. */
export async function cleanSelection(desk: PageDesk, marks: readonly Mark[]): Promise<void> {
  const clean = await import('../desk/cleanDrawing').catch(() => undefined); // Told in the next line.
  if (!clean) return desk.tellProblem(t('drawings.notReached'));
  await clean.offerDrawings(desk, marks);
}

/** Makes selected handwriting even; it stays selected. */
export async function evenSelection(desk: PageDesk, marks: readonly Mark[]): Promise<void> {
  const even = await import('../desk/evenWriting').catch(() => undefined); // Told in the next line.
  if (!even) return desk.tellProblem(t('shapes.notReached'));
  await even.evenWriting(desk, marks);
}

/** Typesets a written formula, and selects it instead of its ink. */
export async function formulaSelection(desk: PageDesk, marks: readonly Mark[]): Promise<void> {
  const written = await import('../desk/writtenFormula').catch(() => undefined); // Told in the next line.
  if (!written) return desk.tellProblem(t('formulas.notReached'));
  const made = await written.typesetInk(desk, marks);
  if (made !== undefined) desk.selection.select([made]);
}
