import type { Desk } from '../../desk/desk';

/** One more than the highest counting number on the page. */
export function nextNumber(desk: Pick<Desk, 'targetMarks'>): number {
  const numbers = (desk.targetMarks?.all() ?? []).flatMap((mark) =>
    mark.kind === 'stamp' && mark.stamp === 'number' ? Number(mark.label) : [],
  );
  return Math.min(999, Math.max(0, ...numbers) + 1);
}
