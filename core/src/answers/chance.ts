import type { TapStep } from '../marks/answerRule.js';
import type { Mark, MarkPatch } from '../marks/mark.js';
import type { AnsweredPage, Told } from './standingIn.js';
import { countsOf } from './standingIn.js';

type Pick = Extract<TapStep, { do: 'pick' }>;
type Change = (id: string, set: (seen: Mark, original: Mark) => MarkPatch, how?: Told) => void;

/**
 * Shows one of several sets by chance, each as likely as any other, and hides those that are seen. Where none may come again
 * before all were, it is one of those that came least often, which their first marks count.
 */
export function picked(page: AnsweredPage, { sets, again }: Pick, change: Change): void {
  const there = sets.filter((set) => set.some((id) => page.original(id)));
  const counts = there.map((set) => countsOf(page.now(set[0]!)).taps);
  const least = Math.min(...counts);
  const open = there.filter((_, i) => again || counts[i] === least);
  const chosen = open[Math.floor(page.chance() * open.length)];
  if (!chosen) return;
  for (const id of there.flat())
    if (!chosen.includes(id) && page.now(id)?.hidden !== true) change(id, () => ({ hidden: true }));
  for (const id of chosen) change(id, () => ({ hidden: false }), { taps: countsOf(page.now(id)).taps + 1 });
}
