import type { Change, Mark, MarkOf } from '@doodla/core';
import { t } from '../words';
import type { Desk } from './desk';
import type { Asked } from './shapesLink';
import { neatWorker } from './shapesLink';

type Ink = MarkOf<'stroke'>;
type EvenDesk = Pick<Desk, 'mayTouch' | 'target' | 'targetMarks' | 'tellProblem'>;

/** A hand that pauses longer begins something else, ms. */
const PAUSE = 6000;

/** Makes handwriting even, in one step; it stays ink of the same hand. */
export async function evenWriting(
  desk: EvenDesk,
  marks: readonly Mark[],
  { evenOut }: Pick<Asked, 'evenOut'> = neatWorker(),
): Promise<void> {
  const ink = marks.filter((mark): mark is Ink => mark.kind === 'stroke' && desk.mayTouch(mark));
  if (ink.length < 2) return desk.tellProblem(t('shapes.nothingWritten'));
  const even = await evenOut(ink.map(({ points }) => points)).catch(() => undefined); // Told in the next line.
  if (!even) return desk.tellProblem(t('shapes.notReached'));
  const changes = ink.flatMap(({ id }, i): Change[] =>
    desk.targetMarks?.get(id) ? [{ do: 'patch', mark: id, set: { points: even[i]! } }] : [],
  );
  if (changes.length > 0) desk.target.perform(changes);
}

/** What this person has written last, back to where the hand paused, in the order of writing. */
export function justWritten(desk: Pick<Desk, 'target' | 'targetMarks'>): Ink[] {
  const own = (desk.targetMarks?.all() ?? [])
    .filter((mark): mark is Ink => mark.kind === 'stroke' && mark.author === desk.target.actor?.id)
    .sort((a, b) => a.createdAt - b.createdAt);
  const first = own.findLastIndex((mark, i) => i > 0 && mark.createdAt - endedAt(own[i - 1]!) > PAUSE);
  return own.slice(Math.max(0, first));
}

function endedAt({ createdAt, points }: Ink): number {
  return createdAt + (points.at(-1) ?? 0);
}
