import type { Mark } from '@doodla/core';
import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';

/** Makes the selected ink neat, and selects the shapes instead of it. */
export async function neatenSelection(desk: PageDesk, marks: readonly Mark[]): Promise<void> {
  const neaten = await import('../desk/neaten').catch(() => undefined);
  if (!neaten) return desk.tellProblem(t('shapes.notReached'));
  await neaten.neatenMarks(desk, marks);
  const made = desk.shapeOffer.get()?.parts.map(({ mark }) => mark.id);
  if (made) desk.selection.select(made);
}
