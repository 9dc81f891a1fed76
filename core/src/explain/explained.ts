import type { Explanation } from '../api/explanations.js';
import type { Recorded, Turn } from '../replay/replay.js';
import type { Noted } from './noted.js';

/** What was noted in each take, by its id. */
export type NotedByTake = ReadonlyMap<string, readonly Noted[]>;

/**
 * What was done in a log as whoever explained saw it: their own operations at the time at which they did them, not when the
 * server heard of them, and the pages that they turned to.
 */
export function explained(
  recorded: Recorded,
  { takes, chapters }: Pick<Explanation, 'takes' | 'chapters'>,
  noted: NotedByTake,
): Recorded {
  const doneAt = new Map<string, number>();
  const turns: Turn[] = [];
  for (const { id, startedAt } of takes)
    for (const one of noted.get(id) ?? []) {
      const at = Math.round(startedAt + one.t);
      if (one.do === 'op') doneAt.set(one.op, at);
      if (one.do !== 'page') continue;
      const name = chapters.find(({ take, from }) => take === id && from === one.t)?.name ?? null;
      turns.push({ at, page: one.page, name, place: { take: id, from: one.t } });
    }
  const operations = recorded.operations.map((one) => ({
    ...one,
    at: doneAt.get(one.operation.id) ?? one.at,
  }));
  return { operations, turns: turns.sort((a, b) => a.at - b.at) };
}
