import type { Mark } from '../marks/mark.js';
import { isAccepted, isFree } from './accepted.js';
import { isFilled } from './answering.js';

/** Something on a page that is answered rightly or wrongly. */
export type AnswerItem = { id: string; name: string } & (
  | { kind: 'thing'; thing: Mark; places: readonly string[] }
  | { kind: 'fill'; fields: readonly Mark[] }
  | { kind: 'choice'; choices: readonly Mark[] }
  | { kind: 'pair'; covers: readonly Mark[] }
  | { kind: 'line'; shown: readonly Mark[] }
);

/** How one item was answered in a space. */
export interface ItemResult {
  state: 'open' | 'right' | 'wrong';
  /** How often it was wrong. */
  tries: number;
  /** Who answered it last. */
  by?: string;
  /** When it was first answered and when last, milliseconds since 1970-01-01 UTC by the clock of whoever answered. */
  from?: number;
  to?: number;
}

/** How all items of a page were answered in a space. */
export interface ResultSummary {
  right: number;
  /** Right at the first try. */
  first: number;
  /** Wrong answers, also of items that are right by now. */
  tries: number;
  open: number;
  /** Milliseconds from the first answer to the last; nothing where nothing is answered. */
  took?: number;
}

type Finder = (id: string) => Mark | undefined;

/**
 * What is to be answered on a page, in the order of its marks that have rules. Things that go anywhere are not, as nothing of
 * it is wrong. `find` also knows marks without rules, which say what is asked.
 */
export function itemsOf(originals: readonly Mark[], find: Finder): AnswerItem[] {
  return [
    ...things(originals, find),
    ...questions(originals, find),
    ...pairs(originals),
    ...lines(originals, find),
  ];
}

function things(originals: readonly Mark[], find: Finder): AnswerItem[] {
  const places = originals.filter(({ rule }) => rule?.takes);
  const named = new Set(places.flatMap(({ rule }) => rule!.takes!.things));
  return [...named].flatMap((id): AnswerItem[] => {
    const thing = find(id);
    const own = places.flatMap((place) => (place.rule!.takes!.things.includes(id) ? place.id : []));
    const goesAnywhere = places.length > 1 && own.length === places.length;
    return thing?.rule?.moves && !goesAnywhere
      ? [{ id, name: nameOf(thing), kind: 'thing', thing, places: own }]
      : [];
  });
}

/** Fields and choices, those of one question together. */
function questions(originals: readonly Mark[], find: Finder): AnswerItem[] {
  const fields = new Map<string, Mark[]>();
  const choices = new Map<string, Mark[]>();
  for (const mark of originals) {
    const { fill, tap, of } = mark.rule ?? {};
    const all = fill && !isFree(fill) ? fields : tap?.is ? choices : undefined;
    for (const question of of ?? [mark.id]) all?.set(question, [...(all.get(question) ?? []), mark]);
  }
  const named = (id: string, [first]: readonly Mark[]) => nameOf(find(id) ?? first!);
  return [
    ...[...fields].map(([id, own]): AnswerItem => ({ id, name: named(id, own), kind: 'fill', fields: own })),
    ...[...choices].map(([id, own]): AnswerItem => ({
      id,
      name: named(id, own),
      kind: 'choice',
      choices: own,
    })),
  ];
}

function pairs(originals: readonly Mark[]): AnswerItem[] {
  const covers = new Map(originals.flatMap((mark) => (mark.rule?.pair ? [[mark.id, mark]] : [])));
  return [...covers.values()].flatMap((cover): AnswerItem[] => {
    const other = covers.get(cover.rule!.pair!.with);
    if (!other || other.id < cover.id) return [];
    return [
      { id: cover.id, name: `${nameOf(cover)} ${nameOf(other)}`, kind: 'pair', covers: [cover, other] },
    ];
  });
}

function lines(originals: readonly Mark[], find: Finder): AnswerItem[] {
  const all = originals.flatMap(({ rule }) => rule?.trace?.lines ?? []);
  const byFirst = new Map(all.map(({ marks }) => [marks[0]!, marks]));
  return [...byFirst].flatMap(([id, marks]): AnswerItem[] => {
    const shown = marks.flatMap((one) => find(one) ?? []);
    return shown.length > 0 ? [{ id, name: nameOf(shown[0]!), kind: 'line', shown }] : [];
  });
}

const nameOf = (mark: Mark) => mark.alt ?? ('text' in mark ? mark.text : '');

/** How an item was answered, as a space shows it: `now` gives what there is of a mark there. */
export function resultOf(item: AnswerItem, now: Finder): ItemResult {
  const seen = marksOf(item).flatMap((mark) => now(mark.id) ?? []);
  const answered = seen.filter(({ standIn }) => standIn);
  const tries = answered.reduce((sum, { standIn }) => sum + standIn!.tries, 0);
  const last = [...answered].sort((a, b) => b.createdAt - a.createdAt)[0];
  return {
    state: stateOf(item, now),
    tries,
    ...(last && {
      by: last.author,
      from: Math.min(...answered.map(({ standIn, createdAt }) => standIn!.since ?? createdAt)),
      to: last.createdAt,
    }),
  };
}

/** The marks by whose answers an item is answered. */
export function marksOf(item: AnswerItem): readonly Mark[] {
  switch (item.kind) {
    case 'thing':
      return [item.thing];
    case 'fill':
      return item.fields;
    case 'choice':
      return item.choices;
    case 'pair':
      return item.covers;
    case 'line':
      return item.shown;
  }
}

function stateOf(item: AnswerItem, now: Finder): ItemResult['state'] {
  switch (item.kind) {
    case 'thing': {
      const at = now(item.thing.id)?.standIn?.at;
      if (at === undefined) return 'open';
      return item.places.includes(at) ? 'right' : 'wrong';
    }
    case 'fill': {
      const seen = item.fields.map((field) => [field, now(field.id)] as const);
      if (!seen.every(([field, one]) => isFilled(field, one))) return 'open';
      const isRight = ([field, one]: (typeof seen)[number]) =>
        isAccepted(field.rule!.fill!, (one as Mark & { text: string }).text);
      return seen.every(isRight) ? 'right' : 'wrong';
    }
    case 'choice': {
      const chosen = chosenOf(item, now);
      return chosen ? chosen.rule!.tap!.is! : 'open';
    }
    case 'pair':
      return item.covers.every(({ id }) => now(id)?.hidden) ? 'right' : 'open';
    case 'line':
      return item.shown.every(({ id }) => now(id)?.hidden === false) ? 'right' : 'open';
  }
}

/** The answer that was chosen last; undefined where none was. */
export function chosenOf({ choices }: AnswerItem & { kind: 'choice' }, now: Finder): Mark | undefined {
  const tapped = choices.flatMap((choice) => {
    const seen = now(choice.id);
    return seen?.standIn && seen.standIn.taps > 0 ? [{ choice, at: seen.createdAt }] : [];
  });
  return tapped.sort((a, b) => b.at - a.at)[0]?.choice;
}

/** What results come to. `more` are wrong answers that are of no item, such as lines along which there is nothing. */
export function summaryOf(results: readonly ItemResult[], more = 0): ResultSummary {
  const right = results.filter(({ state }) => state === 'right');
  const begun = results.filter(({ from }) => from !== undefined);
  return {
    right: right.length,
    first: right.filter(({ tries }) => tries === 0).length,
    tries: results.reduce((sum, { tries }) => sum + tries, more),
    open: results.filter(({ state }) => state === 'open').length,
    ...(begun.length > 0 && {
      took: Math.max(...begun.map(({ to }) => to!)) - Math.min(...begun.map(({ from }) => from!)),
    }),
  };
}

/** Wrong answers on a page that are of none of its items. */
export function strayTries(originals: readonly Mark[], now: Finder): number {
  return originals.reduce((sum, { id, rule }) => sum + (rule?.trace ? (now(id)?.standIn?.tries ?? 0) : 0), 0);
}

/** How a class answered an item: so many of each. */
export interface ItemCount {
  first: number;
  later: number;
  wrong: number;
  open: number;
}

export function countOf(results: readonly ItemResult[]): ItemCount {
  const count: ItemCount = { first: 0, later: 0, wrong: 0, open: 0 };
  for (const { state, tries } of results)
    count[state === 'right' ? (tries === 0 ? 'first' : 'later') : state] += 1;
  return count;
}
