import type { Mark } from '../marks/mark.js';
import type { AnsweredPage, Answer } from './standingIn.js';
import { countsOf, standInFor } from './standingIn.js';

/**
 * What comes of a tap on one of the covers under which pairs are to be found: it is taken away. The two before go back
 * first, unless they belong together. A second one that does not belong to the first is wrong.
 */
export function pairTapped(page: AnsweredPage, cover: Mark): Answer {
  const isAway = (id: string) => page.now(id)?.hidden === true;
  if (isAway(cover.id)) return { marks: [] };
  const alone = page.originals.filter(({ id, rule }) => rule?.pair && isAway(id) && !isAway(rule.pair.with));
  const back = alone.length > 1 ? alone : [];
  const [first] = alone.length === 1 ? alone : [];
  const isWrong = first !== undefined && first.id !== cover.rule!.pair!.with;
  const { tries, taps } = countsOf(page.now(cover.id));
  const marks = [
    ...back.map((mark) => standInFor(page, mark, { hidden: false }, { by: cover.id })),
    standInFor(
      page,
      cover,
      { hidden: true },
      { taps: taps + 1, tries: isWrong ? tries + 1 : tries, by: undefined },
    ),
  ];
  return first ? { marks, verdict: isWrong ? 'wrong' : 'right' } : { marks };
}
