import type { Mark } from '../marks/mark.js';
import { markBounds } from '../marks/bounds.js';
import { boxCentre } from '../geometry/turnedBox.js';
import { centreOf, liesIn } from './places.js';
import type { AnsweredPage } from './standingIn.js';

/** Between things that lie one below the other, page units. */
const GAP = 8;

/** A thing that lies elsewhere in its place than before. */
export interface Shift {
  thing: Mark;
  dx: number;
  dy: number;
}

/** Where a thing is being put. */
interface Put {
  thing: Mark;
  there: Mark;
}

/**
 * What has to go elsewhere in a place so that its things lie one below the other from its top: in the order in which they were put, or
 * those with most votes first. `put` is being laid there, and is always among them; `gone` is being taken away.
 */
export function stackShifts(
  page: AnsweredPage,
  place: Mark,
  { put, gone }: { put?: Put; gone?: string },
): Shift[] {
  const { things = [], stack } = place.rule?.takes ?? {};
  const ground = markBounds(page.now(place.id) ?? place);
  const here = page.originals.flatMap((thing) => {
    if (!things.includes(thing.id) || !thing.rule?.moves || thing.id === gone) return [];
    const seen = page.now(thing.id) ?? thing;
    const lies = put?.thing.id === thing.id ? put.there : seen;
    return lies === put?.there || liesIn(centreOf(seen), page.now(place.id) ?? place)
      ? [{ thing, seen, lies }]
      : [];
  });
  const votes = new Map(here.map(({ thing }) => [thing.id, stack === 'most' ? votesOf(page, thing) : 0]));
  here.sort(
    (a, b) => votes.get(b.thing.id)! - votes.get(a.thing.id)! || centreOf(a.lies)[1] - centreOf(b.lies)[1],
  );
  const heights = here.map(({ seen }) => markBounds(seen).height);
  const needed = heights.reduce((sum, height) => sum + height + GAP, GAP);
  // Where there are too many they lie over one another, each with its upper edge to be seen.
  const squeeze = Math.min(
    1,
    (ground.height - GAP - (heights.at(-1) ?? 0)) / (needed - GAP - (heights.at(-1) ?? 0)),
  );
  let top = ground.y + GAP;
  return here.flatMap(({ thing, seen }, i): Shift[] => {
    const [x, y] = centreOf(seen);
    const [dx, dy] = [boxCentre(ground)[0] - x, top + heights[i]! / 2 - y];
    top += (heights[i]! + GAP) * squeeze;
    return Math.hypot(dx, dy) > 0.01 || thing === put?.thing ? [{ thing, dx, dy }] : [];
  });
}

/** How often a thing was voted for: the numbers that taps on its group count up. */
export function votesOf(page: AnsweredPage, { group }: Mark): number {
  if (group === null) return 0;
  const steps = page.originals.flatMap((mark) => (mark.group === group ? (mark.rule?.tap?.steps ?? []) : []));
  const numbers = new Set(steps.flatMap((step) => (step.do === 'count' ? step.mark : [])));
  return [...numbers].reduce((sum, id) => {
    const seen = page.now(id) ?? page.original(id);
    return sum + (seen && 'text' in seen ? Number.parseInt(seen.text, 10) || 0 : 0);
  }, 0);
}

/** The place with a stack that a thing lies in. */
export function stackUnder(page: AnsweredPage, thing: Mark): Mark | undefined {
  const seen = page.now(thing.id) ?? thing;
  return page.originals.find(
    (mark) =>
      mark.rule?.takes?.stack !== undefined &&
      mark.rule.takes.things.includes(thing.id) &&
      liesIn(centreOf(seen), page.now(mark.id) ?? mark),
  );
}
