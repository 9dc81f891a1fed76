import type { Change } from '../ops/operation.js';
import type { MarkFinder } from './movements.js';

/**
 * Whether a turn is over with changes: something was put in a place, filled in, chosen or found, or was wrong. Whoever has
 * found a pair goes on. `find` knows the marks as they are before.
 */
export function endsTurn(changes: readonly Change[], find: MarkFinder): boolean {
  return changes.some((change) => {
    if (change.do !== 'add' || !change.mark.standIn) return false;
    const { for: original, at, by, tries } = change.mark.standIn;
    const rule = find(by ?? original)?.rule;
    const before = find(change.mark.id)?.standIn;
    const isWrong = tries > (before?.tries ?? 0);
    if (rule?.pair) return isWrong;
    const isAnswer = rule?.fill ?? rule?.tap?.is ?? rule?.trace;
    // What lies where it lay was only put over others again.
    return isAnswer !== undefined || (at !== undefined && at !== before?.at) || isWrong;
  });
}
