import type { TapStep } from '../marks/answerRule.js';
import type { Point } from '../marks/kind.js';
import type { Mark, MarkPatch } from '../marks/mark.js';
import type { StandIn } from '../marks/shared.js';
import { isAccepted, isFree } from './accepted.js';
import { picked } from './chance.js';
import { movedBy, transformed } from './movements.js';
import { pairTapped } from './pairs.js';
import { centreOf, liesIn, placeAt, spotIn } from './places.js';
import type { Shift } from './stacks.js';
import { stackShifts, stackUnder } from './stacks.js';
import type { AnsweredPage, Answer, Told } from './standingIn.js';
import { countsOf, standInFor } from './standingIn.js';

/** What a tap does beside the page. */
export type Aside = Extract<TapStep, { do: 'speak' | 'page' | 'play' | 'tune' }>;

/** What a tap on a mark comes to; nothing where it counts once and was tapped. */
export function tapped(page: AnsweredPage, mark: Mark): Answer & { asides: Aside[] } {
  const { tap, pair } = mark.rule ?? {};
  if (pair) return { ...pairTapped(page, mark), asides: [] };
  const { taps, tries } = countsOf(page.now(mark.id));
  if (!tap || (tap.once && taps > 0)) return { marks: [], asides: [] };
  const made = new Map<string, Mark>();
  const now = (id: string) => made.get(id) ?? page.now(id);
  const change = (id: string, set: (seen: Mark, original: Mark) => MarkPatch, how: Told = {}) => {
    const original = page.original(id);
    if (!original) return;
    const seen = now(id) ?? original;
    made.set(id, standInFor({ ...page, now }, original, set(seen, original), { by: mark.id, ...how }));
  };
  for (const step of tap.steps)
    if (step.do === 'pick') picked(page, step, change);
    else apply(step, change);
  if (tap.once || tap.is) {
    const counts = { taps: taps + 1, tries: tap.is === 'wrong' ? tries + 1 : tries };
    made.set(mark.id, standInFor({ ...page, now }, mark, {}, { ...counts, ...byOf(made.get(mark.id)) }));
  }
  for (const id of [...made.keys()]) raise(page, id, made, mark.id);
  const marks = [...made.values()];
  const asides = tap.steps.filter(isAside);
  return tap.is ? { marks, asides, verdict: tap.is } : { marks, asides };
}

/** What stands for one of a group lies over all of that, so the others are put over it again in their order. */
function raise(page: AnsweredPage, id: string, made: Map<string, Mark>, by: string): void {
  const group = page.original(id)?.group ?? null;
  if (group === null || made.get(id)!.hidden) return;
  for (const mate of page.originals.filter((mark) => mark.group === group)) {
    const known = made.get(mate.id);
    made.set(mate.id, known ? { ...known, order: page.order() } : standInFor(page, mate, {}, { by }));
  }
}

const ASIDES: ReadonlySet<TapStep['do']> = new Set(['speak', 'page', 'play', 'tune']);
const isAside = (step: TapStep): step is Aside => ASIDES.has(step.do);

const byOf = (mark: Mark | undefined): Pick<StandIn, 'by'> =>
  mark?.standIn?.by === undefined ? {} : { by: mark.standIn.by };

function apply(
  step: Exclude<TapStep, { do: 'pick' }>,
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
    case 'play':
    case 'tune':
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
  const left = stackUnder(page, thing);
  if (!place || !rule)
    return {
      marks: [
        ...together(page, thing, move, { at: undefined }),
        ...(left ? closedUp(page, left, thing) : []),
      ],
    };
  const id = place.standIn?.for ?? place.id;
  const isRight = rule.things.includes(thing.id);
  if (!isRight && rule.sendsBack) {
    const stays = standInFor(page, thing, {}, { tries: tries + 1 });
    return { marks: [stays], verdict: 'wrong', sentBack: true };
  }
  const verdict = goesAnywhere(page, thing) ? {} : ({ verdict: isRight ? 'right' : 'wrong' } as const);
  if (rule.stack && isRight) {
    const shifts = stackShifts(page, page.original(id)!, { put: { thing, there } });
    const marks = shifts.flatMap((shift) => shifted(page, shift, id));
    return { marks: [...marks, ...(left && left.id !== id ? closedUp(page, left, thing) : [])], ...verdict };
  }
  const spot =
    rule.snaps && move.kind === 'move' ? spotIn(place, there, thingsIn(page, id, thing.id)) : undefined;
  const [x, y] = centreOf(seen);
  const end = spot ? ({ kind: 'move', dx: spot[0] - x, dy: spot[1] - y } as const) : move;
  const how = { at: id, tries: isRight ? tries : tries + 1 };
  const gap = left && left.id !== id ? closedUp(page, left, thing) : [];
  return { marks: [...together(page, thing, end, how), ...gap], ...verdict };
}

/** Whether a thing belongs in each of several places, so that it is right in none more than in another. */
function goesAnywhere(page: AnsweredPage, thing: Mark): boolean {
  const places = page.originals.filter(({ rule }) => rule?.takes);
  return places.length > 1 && places.every(({ rule }) => rule!.takes!.things.includes(thing.id));
}

/** A thing of a stack, with what moves with it, where it lies then. */
const shifted = (page: AnsweredPage, { thing, dx, dy }: Shift, at: string) =>
  together(page, thing, { kind: 'move', dx, dy }, { at });

/** What is left of a stack that something is taken away from. */
const closedUp = (page: AnsweredPage, place: Mark, gone: Mark) =>
  stackShifts(page, place, { gone: gone.id }).flatMap((shift) => shifted(page, shift, place.id));

/**
 * What comes of votes: the things of the place in which what was voted for lies, those with most first. `counted` is what the tap
 * has come to, which the page need not show yet.
 */
export function sortedByVotes(page: AnsweredPage, voted: Mark, counted: readonly Mark[]): Answer {
  const made = new Map(counted.map((mark) => [mark.standIn?.for, mark]));
  const after = { ...page, now: (id: string) => made.get(id) ?? page.now(id) };
  const thing = page.originals.find(
    ({ group, rule }) => group !== null && group === voted.group && rule?.moves,
  );
  const place = thing && stackUnder(after, thing);
  if (place?.rule?.takes?.stack !== 'most') return { marks: [] };
  return { marks: stackShifts(after, place, {}).flatMap((shift) => shifted(after, shift, place.id)) };
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

/** What comes of a figure of which something was set: what it shows now, and is made of. */
export function figureSet(page: AnsweredPage, mark: Mark, look: MarkPatch): Answer {
  return mark.rule?.sets ? { marks: [standInFor(page, mark, look, { by: undefined })] } : { marks: [] };
}

/** What comes of words that were filled in. Of a field that is one of several of a question all are judged, once all are filled. */
export function filledIn(page: AnsweredPage, mark: Mark, typed: string): Answer {
  const { fill, of } = mark.rule ?? {};
  const seen = page.now(mark.id);
  if (!fill) return { marks: [] };
  const { tries } = countsOf(seen);
  const isEmpty = typed.trim() === '';
  const isRight = !isEmpty && isAccepted(fill, typed);
  const set = { tries: isRight || isEmpty || isFree(fill) ? tries : tries + 1, by: undefined };
  const text = isEmpty && 'text' in mark ? mark.text : typed;
  const filled = standInFor(page, mark, { text, parts: [] }, set);
  if (isEmpty || isFree(fill)) return { marks: [filled] };
  const now = (id: string) => (id === mark.id ? filled : page.now(id));
  const verdict = of ? verdictOfAll({ ...page, now }, of) : isRight ? 'right' : 'wrong';
  return { marks: [filled], ...(verdict && { verdict }) };
}

/** How the fields of a question are filled; of several questions those count that are filled wholly. */
function verdictOfAll(page: AnsweredPage, questions: readonly string[]): Answer['verdict'] {
  const verdicts = questions.flatMap((question) => {
    const fields = page.originals.filter(({ rule }) => rule?.fill && rule.of?.includes(question));
    const seen = fields.map((field) => [field, page.now(field.id)] as const);
    if (seen.some(([field, now]) => !isFilled(field, now))) return [];
    return [seen.every(([field, now]) => isAccepted(field.rule!.fill!, wordsOf(now)))];
  });
  if (verdicts.length === 0) return undefined;
  return verdicts.every(Boolean) ? 'right' : 'wrong';
}

const wordsOf = (mark: Mark | undefined) => (mark && 'text' in mark ? mark.text : '');

/** Whether something stands in a field that is not what stood there at first. */
export function isFilled(field: Mark, now: Mark | undefined): boolean {
  return now?.standIn !== undefined && wordsOf(now) !== wordsOf(field);
}
