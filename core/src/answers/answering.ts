import type { TapStep } from '../marks/answerRule.js';
import type { Point } from '../marks/kind.js';
import type { Mark, MarkPatch } from '../marks/mark.js';
import type { Space, StandIn } from '../marks/shared.js';
import { standInId } from '../marks/standIn.js';
import { patchMark } from '../ops/apply.js';
import { isAccepted } from './accepted.js';
import type { MarkFinder } from './movements.js';
import { movedBy, transformed } from './movements.js';
import { centreOf, liesIn, placeAt, spotIn } from './places.js';

/** A page with rules, as somebody who answers sees it. */
export interface AnsweredPage {
  space: Space;
  author: string;
  /** A mark as it was made, whatever stands for it; also one that is not to be seen. */
  original: MarkFinder;
  /** What there is of it now: itself, or what stands for it. */
  now: MarkFinder;
  /** Things and places by their originals. */
  originals: readonly Mark[];
  /** For what is put on top of all there is. */
  order(): string;
  newId(): string;
  /** The time, milliseconds since 1970-01-01 UTC. */
  time(): number;
}

/** How an answer was. */
export type Verdict = 'right' | 'wrong';

/** What an answer comes to: marks to be put, and whether it was right, where that is said. */
export interface Answer {
  marks: Mark[];
  verdict?: Verdict;
  /** Whether a thing went back to where it came from. */
  sentBack?: boolean;
}

/** What a tap does beside the page. */
export type Aside = Extract<TapStep, { do: 'speak' | 'page' }>;

/** What is said of a stand-in; what is undefined is not so any more. */
type Told = { [Key in keyof Omit<StandIn, 'for'>]?: StandIn[Key] | undefined };

/** How often a mark was answered wrongly or tapped. */
const countsOf = (mark: Mark | undefined): Pick<StandIn, 'tries' | 'taps'> => ({
  tries: mark?.standIn?.tries ?? 0,
  taps: mark?.standIn?.taps ?? 0,
});

/** What stands for a mark once something of it is another. */
function standInFor(page: AnsweredPage, original: Mark, set: MarkPatch, how: Told = {}): Mark {
  const before = page.now(original.id) ?? original;
  const { at } = before.standIn ?? {};
  const standIn = { for: original.id, ...(at !== undefined && { at }), ...countsOf(before), ...how };
  return {
    ...withoutRule(patchMark(before, set)),
    id: standInId(original.id, page.space),
    space: page.space,
    author: page.author,
    order: page.order(),
    locked: false,
    group: null,
    createdAt: page.time(),
    standIn: withoutGaps(standIn),
  } as Mark;
}

function withoutRule(mark: Mark): object {
  const rest: Partial<Mark> = { ...mark };
  delete rest.rule;
  delete rest.credit;
  return rest;
}

/** The same without what is undefined, which no message can hold. */
function withoutGaps<T extends object>(value: T): T {
  return Object.fromEntries(Object.entries(value).filter(([, each]) => each !== undefined)) as T;
}

/** What a tap on a mark comes to; nothing where it counts once and was tapped. */
export function tapped(page: AnsweredPage, mark: Mark): Answer & { asides: Aside[] } {
  const { tap } = mark.rule ?? {};
  const { taps } = countsOf(page.now(mark.id));
  if (!tap || (tap.once && taps > 0)) return { marks: [], asides: [] };
  const made = new Map<string, Mark>();
  const now = (id: string) => made.get(id) ?? page.now(id);
  const change = (id: string, set: (seen: Mark, original: Mark) => MarkPatch) => {
    const original = page.original(id);
    if (!original) return;
    const seen = now(id) ?? original;
    made.set(id, standInFor({ ...page, now }, original, set(seen, original), { by: mark.id }));
  };
  for (const step of tap.steps) apply(step, change);
  if (tap.once) {
    const stands = { ...page, now };
    made.set(mark.id, standInFor(stands, mark, {}, { taps: taps + 1, ...byOf(made.get(mark.id)) }));
  }
  const asides = tap.steps.filter((step): step is Aside => step.do === 'speak' || step.do === 'page');
  return { marks: [...made.values()], asides };
}

const byOf = (mark: Mark | undefined): Pick<StandIn, 'by'> =>
  mark?.standIn?.by === undefined ? {} : { by: mark.standIn.by };

function apply(
  step: TapStep,
  change: (id: string, set: (seen: Mark, original: Mark) => MarkPatch) => void,
): void {
  switch (step.do) {
    case 'show':
    case 'hide':
      return step.marks.forEach((id) => change(id, () => ({ hidden: step.do === 'hide' })));
    case 'swap':
      return step.marks.forEach((id) => change(id, (seen) => ({ hidden: seen.hidden !== true })));
    case 'move':
      return step.marks.forEach((id) =>
        change(id, (_seen, original) => placeOf(original, { kind: 'move', dx: step.dx, dy: step.dy })),
      );
    case 'colour':
      return step.marks.forEach((id) => change(id, (seen) => colourSet(seen, step.colour)));
    case 'text':
      return change(step.mark, () => ({ text: step.text, parts: [] }));
    case 'count':
      return change(step.mark, (seen) => ({ text: counted(seen, step.by), parts: [] }));
    case 'speak':
    case 'page':
  }
}

/** The fields of a mark as they are after a transform of it. */
function placeOf(mark: Mark, transform: Parameters<typeof transformed>[1]): MarkPatch {
  const after = transformed(mark, transform) as unknown as Record<string, unknown>;
  const before = mark as unknown as Record<string, unknown>;
  const changed = Object.keys(after).filter((key) => after[key] !== before[key] && key !== 'style');
  return Object.fromEntries(changed.map((key) => [key, after[key]]));
}

/** What makes a mark another colour: its line, or its ground where it has no line. */
export function colourSet(mark: Mark, colour: string): MarkPatch {
  const { style } = mark as { style: Record<string, unknown> };
  if ('colour' in style) return { style: { colour } };
  if (style.fill !== null && style.fill !== undefined) return { style: { fill: colour } };
  return 'line' in style ? { style: { line: colour } } : {};
}

/** A number that is typed on a mark, and so much more; where there is none, it is counted from nought. */
function counted(mark: Mark, by: number): string {
  const value = 'text' in mark ? Number.parseInt(mark.text, 10) : 0;
  return String((Number.isFinite(value) ? value : 0) + by);
}

/** The marks that are moved with one, and the one by whose rule they are: those of its group. */
export function movedTogether(page: Pick<AnsweredPage, 'originals'>, thing: Mark): Mark[] {
  const { group } = thing;
  return group === null ? [thing] : page.originals.filter((mark) => mark.group === group);
}

/** What comes of a thing that a hand has moved from one point to another and let go of. Page units. */
export function dropped(page: AnsweredPage, thing: Mark, hand: { from: Point; to: Point }): Answer {
  const { moves } = thing.rule ?? {};
  const seen = page.now(thing.id) ?? thing;
  if (!moves) return { marks: [] };
  const find = (id: string) => page.now(id) ?? page.original(id);
  const move = movedBy(moves.copies ? thing : seen, moves.movement, hand, find);
  if (moves.copies) return { marks: [copyOf(page, thing, transformed(thing, move))] };
  const there = transformed(seen, move);
  const place = placeAt(centreOf(there), placesOf(page));
  const rule = place && page.original(place.standIn?.for ?? place.id)?.rule?.takes;
  const { tries } = countsOf(seen);
  if (!place || !rule) return { marks: together(page, thing, move, { at: undefined }) };
  const id = place.standIn?.for ?? place.id;
  const isRight = rule.things.includes(thing.id);
  if (!isRight && rule.sendsBack) {
    const stays = standInFor(page, thing, {}, { tries: tries + 1 });
    return { marks: [stays], verdict: 'wrong', sentBack: true };
  }
  const spot =
    rule.snaps && move.kind === 'move' ? spotIn(place, there, thingsIn(page, id, thing.id)) : undefined;
  const [x, y] = centreOf(seen);
  const end = spot ? ({ kind: 'move', dx: spot[0] - x, dy: spot[1] - y } as const) : move;
  const how = { at: id, tries: isRight ? tries : tries + 1 };
  return { marks: together(page, thing, end, how), verdict: isRight ? 'right' : 'wrong' };
}

/** A thing and what moves with it, after a transform. */
function together(
  page: AnsweredPage,
  thing: Mark,
  transform: Parameters<typeof transformed>[1],
  how: Told,
): Mark[] {
  return movedTogether(page, thing).map((mark) => {
    const seen = page.now(mark.id) ?? mark;
    const own = mark.id === thing.id ? { by: undefined, ...how } : { by: thing.id };
    return standInFor(page, mark, placeOf(seen, transform), own);
  });
}

/** What is pulled from a pile lies where it was let go of, under an id of its own. */
function copyOf(page: AnsweredPage, pile: Mark, there: Mark): Mark {
  const how = { copy: true, tries: 0, taps: 0, by: undefined, at: undefined };
  const alone = { ...page, now: () => there };
  return { ...standInFor(alone, pile, {}, how), id: page.newId() };
}

/** What comes of a copy that is moved on; one that is laid on its pile is gone. */
export function copyMoved(page: AnsweredPage, copy: Mark, hand: { from: Point; to: Point }): Mark | 'gone' {
  const pile = page.original(copy.standIn!.for);
  if (!pile?.rule?.moves) return copy;
  const find = (id: string) => page.now(id) ?? page.original(id);
  const there = transformed(copy, movedBy(copy, pile.rule.moves.movement, hand, find));
  if (liesIn(centreOf(there), pile)) return 'gone';
  return { ...there, author: page.author, order: page.order() };
}

/** What takes things, as it is now. */
function placesOf(page: AnsweredPage): Mark[] {
  return page.originals.flatMap((mark) => (mark.rule?.takes ? (page.now(mark.id) ?? []) : []));
}

/** What lies in a place, but for one thing. */
function thingsIn(page: AnsweredPage, place: string, except: string): Mark[] {
  return page.originals.flatMap((mark) => {
    const seen = page.now(mark.id);
    return mark.id !== except && seen?.standIn?.at === place ? [seen] : [];
  });
}

/** What comes of words that were filled in. */
export function filledIn(page: AnsweredPage, mark: Mark, typed: string): Answer {
  const { fill } = mark.rule ?? {};
  const seen = page.now(mark.id);
  if (!fill) return { marks: [] };
  const { tries } = countsOf(seen);
  const isEmpty = typed.trim() === '';
  const isRight = !isEmpty && isAccepted(fill, typed);
  const set = { tries: isRight || isEmpty ? tries : tries + 1, by: undefined };
  const text = isEmpty && 'text' in mark ? mark.text : typed;
  const marks = [standInFor(page, mark, { text, parts: [] }, set)];
  return isEmpty ? { marks } : { marks, verdict: isRight ? 'right' : 'wrong' };
}
