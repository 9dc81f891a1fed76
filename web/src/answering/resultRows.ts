import type { Mark, Person, Space } from '@doodla/core';
import { standInId } from '@doodla/core';
import type { AnswerItem, ItemResult, ResultSummary } from '@doodla/core/answers';
import { resultOf, strayTries, summaryOf } from '@doodla/core/answers';

/** How somebody answered the items of a page. */
export interface ResultRow {
  /** The space, or the person where all answer together. */
  id: string;
  name: string;
  results: readonly ItemResult[];
  summary: ResultSummary;
  /** When something was last done, milliseconds; nothing where nothing was. */
  at?: number;
}

/** What there is of marks in a space. */
type Finder = (id: string) => Mark | undefined;

export const seenIn =
  (marks: ReadonlyMap<string, Mark>, original: Finder, space: Space): Finder =>
  (id) =>
    marks.get(standInId(id, space)) ?? marks.get(standInId(id, 'class')) ?? original(id);

function rowOf(id: string, name: string, results: readonly ItemResult[], stray = 0): ResultRow {
  const times = results.flatMap(({ to }) => to ?? []);
  const summary = summaryOf(results, stray);
  return { id, name, results, summary, ...(times.length > 0 && { at: Math.max(...times) }) };
}

/** What is looked at of a page. */
export interface LookedAt {
  items: readonly AnswerItem[];
  originals: readonly Mark[];
  /** The marks of the class. */
  marks: ReadonlyMap<string, Mark>;
}

/** A row for each copy of a page. */
export function rowsOfCopies(
  { items, originals, marks }: LookedAt,
  copies: readonly { space: Space; name: string }[],
): ResultRow[] {
  const byId = new Map(originals.map((mark) => [mark.id, mark]));
  return copies.map(({ space, name }) => {
    const now = seenIn(marks, (id) => byId.get(id), space);
    const results = items.map((item) => resultOf(item, now));
    return rowOf(space, name, results, strayTries(originals, now));
  });
}

/** A row for all who answer together, and one for each of them with what they answered last. */
export function rowsTogether(
  looked: LookedAt,
  people: readonly Pick<Person, 'id' | 'name'>[],
  all: string,
): ResultRow[] {
  const [together] = rowsOfCopies(looked, [{ space: 'class', name: all }]);
  const own = people.flatMap(({ id, name }) => {
    const results = together!.results.map((result): ItemResult =>
      result.by === id ? result : { state: 'open', tries: 0 },
    );
    return results.some(({ by }) => by === id) ? [rowOf(id, name, results)] : [];
  });
  return [together!, ...own];
}

/** The words of a table of results. */
export interface TableWords {
  who: string;
  right: string;
  first: string;
  wrong: string;
  minutes: string;
  states: Readonly<Record<ItemResult['state'], string>>;
}

/** Results as a table: a row for each, a column for each item with how it is and how often it was wrong. */
export function tableOf(
  items: readonly AnswerItem[],
  rows: readonly ResultRow[],
  words: TableWords,
): (string | number)[][] {
  const head = [
    words.who,
    words.right,
    words.first,
    words.wrong,
    words.minutes,
    ...items.map(({ name }) => name),
  ];
  const minutes = ({ took }: ResultSummary) => (took === undefined ? '' : Math.round(took / 6000) / 10);
  const cell = ({ state, tries }: ItemResult) =>
    state === 'open' && tries === 0 ? '' : `${words.states[state]}${tries > 0 ? ` (${tries})` : ''}`;
  return [
    head,
    ...rows.map(({ name, summary, results }) => [
      name,
      summary.right,
      summary.first,
      summary.tries,
      minutes(summary),
      ...results.map(cell),
    ]),
  ];
}
