import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { AnswerItem } from '../src/answers/index.js';
import {
  centreOf,
  countOf,
  dropped,
  endsTurn,
  filledIn,
  itemsOf,
  resultOf,
  strayTries,
  summaryOf,
  tapped,
  traced,
  turnAfter,
  turnOf,
} from '../src/answers/index.js';
import { tableFile } from '../src/classTable/index.js';
import type { ExerciseKind } from '../src/exercises/index.js';
import { makeExercise } from '../src/exercises/index.js';
import type { Accepted, Mark, Space, Turns } from '../src/index.js';
import { byOrder } from '../src/index.js';
import { TaughtPage } from './helpers/answeredPage.js';
import { common } from './helpers/marks.js';

const SPOKEN = {
  ...{ across: 'Across', down: 'Down', most: 'most', least: 'least', isTrue: 'true', isFalse: 'false' },
  ...{ spin: 'Spin', roll: 'Throw', pick: 'Draw', language: 'en' },
};

function taught(kind: ExerciseKind, text: string, level: 'easy' | 'medium' = 'medium'): TaughtPage {
  const area = { x: 0, y: 0, width: 1280, height: 720 };
  const made = makeExercise({ kind, text, level, title: '', seed: 4, area, words: SPOKEN });
  return new TaughtPage(
    made.map((mark, i) => ({ ...common(), ...mark, order: `a${String(i).padStart(5, '0')}1` })),
  );
}

const results = (page: TaughtPage, space: Space = 'class') =>
  itemsOf(page.prepared, page.original).map((item) => resultOf(item, (id) => page.seenBy(space, id)));
const summary = (page: TaughtPage, space: Space = 'class') =>
  summaryOf(
    results(page, space),
    strayTries(page.prepared, (id) => page.seenBy(space, id)),
  );
const named = (page: TaughtPage, alt: string) => page.prepared.find((mark) => mark.alt === alt && mark.rule)!;

/** Carries a thing to a place as a student. */
function carry(page: TaughtPage, who: string, thing: Mark, place: Mark, space: Space = 'class'): void {
  const from = centreOf(page.seenBy(space, thing.id)!);
  const answer = dropped(page.as(who, space), thing, { from, to: centreOf(place) });
  expect(page.put(who, answer.marks)).toBeUndefined();
}

describe('what a class has answered', () => {
  it.each(['easy', 'medium'] as const)('is right to the count, whoever puts what where (%s)', (level) => {
    const moves = fc.array(fc.tuple(fc.nat(3), fc.nat(3)), { maxLength: 25 });
    fc.assert(
      fc.property(moves, (list) => {
        const page = taught('order', 'one\ntwo\nthree\nfour', level);
        const places = page.prepared.filter(({ rule }) => rule?.takes);
        const things = ['one', 'two', 'three', 'four'].map((name) => named(page, name));
        const wrong = [0, 0, 0, 0];
        const at: (number | undefined)[] = [undefined, undefined, undefined, undefined];
        for (const [thing, place] of list) {
          carry(page, 'wren', things[thing]!, places[place]!);
          if (thing !== place) wrong[thing]! += 1;
          if (thing === place || level === 'medium') at[thing] = place;
        }
        const right = at.filter((place, thing) => place === thing);
        expect(summary(page)).toMatchObject({
          right: right.length,
          first: at.filter((place, thing) => place === thing && wrong[thing] === 0).length,
          tries: wrong.reduce((sum, count) => sum + count, 0),
          open: at.filter((place) => place === undefined).length,
        });
      }),
      { numRuns: 40 },
    );
  });

  it('is told apart by space, each with the time from the first answer to the last', () => {
    const page = taught('match', 'a = 1\nb = 2');
    const places = page.prepared.filter(({ rule }) => rule?.takes);
    const ben: Space = 'student:ben';
    page.clock = 1000;
    carry(page, 'ben', named(page, '1'), places[1]!, ben);
    page.clock = 5000;
    carry(page, 'ben', named(page, '1'), places[0]!, ben);
    page.clock = 9500;
    carry(page, 'ben', named(page, '2'), places[1]!, ben);
    expect(summary(page, ben)).toEqual({ right: 2, first: 1, tries: 1, open: 0, took: 8500 });
    expect(summary(page)).toEqual({ right: 0, first: 0, tries: 0, open: 2 });
    expect(countOf(results(page, ben))).toEqual({ first: 1, later: 1, wrong: 0, open: 0 });
  });

  it('of a choice is what was chosen last', () => {
    const page = taught('choice', 'Legs of a spider? = 8 | 6 | 10');
    const tap = (alt: string) => {
      page.clock += 1000;
      expect(page.put('wren', tapped(page.as('wren'), named(page, alt)).marks)).toBeUndefined();
    };
    expect(itemsOf(page.prepared, page.original).map(({ name }) => name)).toEqual(['Legs of a spider?']);
    tap('6');
    expect(results(page)[0]).toMatchObject({ state: 'wrong', tries: 1, by: 'wren' });
    tap('8');
    expect(results(page)[0]).toMatchObject({ state: 'right', tries: 1 });
    tap('10');
    expect(results(page)[0]).toMatchObject({ state: 'wrong', tries: 2 });
    // The words of what was tapped lie over its ground again.
    const standing = page.standing('class').sort(byOrder);
    const of = (alt: string) => standing.findIndex((mark) => mark.alt === alt && mark.standIn);
    const words = standing.findIndex((mark) => mark.standIn && 'text' in mark && mark.text === '10');
    expect(of('10')).toBeGreaterThan(-1);
    expect(words).toBeGreaterThan(of('10'));
    const rings = page.standing('class').filter(({ alt }) => alt === '✓');
    expect(rings).toHaveLength(1);
  });

  it('of a crossword is by its clues, judged once a word is whole', () => {
    const page = taught('crossword', 'ice = cold\nrice = food');
    const items = itemsOf(page.prepared, page.original);
    expect(items.map(({ name }) => name.slice(3)).sort()).toEqual(['cold (3)', 'food (4)']);
    const cold = items.find(({ name }) => name.includes('cold')) as AnswerItem & { kind: 'fill' };
    const say = cold.fields.map((field) => {
      const right = field.rule!.fill as Accepted & { as: 'words' };
      const answer = filledIn(page.as('wren'), field, right.answers[0]!);
      expect(page.put('wren', answer.marks)).toBeUndefined();
      return answer.verdict;
    });
    expect(say).toEqual([undefined, undefined, 'right']);
    expect(
      results(page)
        .map(({ state }) => state)
        .sort(),
    ).toEqual(['open', 'right']);
    const wrong = filledIn(page.as('wren'), cold.fields[0]!, 'X');
    expect(wrong.verdict).toBe('wrong');
    page.put('wren', wrong.marks);
    expect(results(page)[items.indexOf(cold)]).toMatchObject({ state: 'wrong', tries: 1 });
  });

  it('of pairs is right once both are uncovered, and counts what did not belong together', () => {
    const page = taught('pairs', 'a = 1\nb = 2');
    const covers = page.prepared.filter(({ rule }) => rule?.pair);
    const [first] = covers;
    const partner = covers.find(({ id }) => id === first!.rule!.pair!.with)!;
    const [other] = covers.filter((cover) => cover !== first && cover !== partner);
    const tap = (cover: Mark) => {
      const answer = tapped(page.as('wren'), cover);
      expect(page.put('wren', answer.marks)).toBeUndefined();
      return answer.verdict;
    };
    expect([tap(first!), tap(other!)]).toEqual([undefined, 'wrong']);
    const away = () => covers.filter(({ id }) => page.seenBy('class', id)!.hidden);
    expect(away()).toHaveLength(2);
    expect(tap(first!)).toBeUndefined();
    // A tap on what is away does nothing; the third one covers the two before.
    expect(tap(partner)).toBeUndefined();
    expect(away()).toEqual([partner]);
    expect(tap(first!)).toBe('right');
    expect(
      away()
        .map(({ id }) => id)
        .sort(),
    ).toEqual([first!.id, partner.id].sort());
    expect(summary(page)).toMatchObject({ right: 1, tries: 1, open: 1 });
  });

  it('of a word search counts lines along which there is nothing', () => {
    const page = taught('wordSearch', 'owl\nwren');
    const grid = page.prepared.find(({ rule }) => rule?.trace)!;
    const [line] = grid.rule!.trace!.lines;
    const to: [number, number] = [line!.to[0] + 1, line!.to[1]];
    const from: [number, number] = [...line!.from];
    page.put('ben', traced(page.as('ben'), grid, { from, to: [to[0] + 200, to[1] + 33] }).marks);
    page.put('ben', traced(page.as('ben'), grid, { from, to }).marks);
    expect(summary(page)).toMatchObject({ right: 1, first: 1, tries: 1, open: 1 });
  });

  it('is taken of two who answer at the same time, neither of whom has heard of the other', () => {
    const page = taught('match', 'a = 1\nb = 2');
    const [place] = page.prepared.filter(({ rule }) => rule?.takes);
    const thing = named(page, '1');
    const both = ['wren', 'ben'].map((who, i) => {
      page.clock += i;
      return dropped(page.as(who), thing, { from: centreOf(thing), to: centreOf(place!) }).marks;
    });
    expect(page.put('wren', both[0]!)).toBeUndefined();
    expect(page.put('ben', both[1]!)).toBeUndefined();
    expect(results(page)[0]).toMatchObject({ state: 'right', by: 'ben' });
  });

  it('has nothing to be wrong where everything goes anywhere', () => {
    for (const page of [taught('rank', 'a\nb\nc'), taught('dice', '')])
      expect(itemsOf(page.prepared, page.original)).toEqual([]);
  });
});

describe('turns', () => {
  it('go round those who are here', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.stringMatching(/^[a-z]{1,4}$/), { minLength: 1, maxLength: 8 }),
        fc.nat(20),
        fc.infiniteStream(fc.boolean()),
        (students, at, chance) => {
          const here = new Set(students.filter(() => chance.next().value));
          const before = { students, at: at % students.length };
          const after = turnAfter(before, here);
          const others = students.filter((id) => here.has(id) && id !== turnOf(before));
          if (others.length === 0) {
            expect(after).toEqual(before);
            return;
          }
          expect(here.has(turnOf(after)!)).toBe(true);
          const seen = new Set<string>();
          for (let turns: Turns = before, i = 0; i < students.length; i++) {
            turns = turnAfter(turns, here);
            seen.add(turnOf(turns)!);
          }
          expect([...others].every((id) => seen.has(id))).toBe(true);
        },
      ),
    );
  });

  it('end with an answer, not with moving about, nor for whoever finds a pair', () => {
    const page = taught('match', 'a = 1\nb = 2');
    const thing = named(page, '1');
    const [place] = page.prepared.filter(({ rule }) => rule?.takes);
    const ends = (marks: readonly Mark[], of = page) =>
      endsTurn(
        marks.map((mark) => ({ do: 'add', mark })),
        of.find,
      );
    const from = centreOf(thing);
    expect(ends(dropped(page.as('wren'), thing, { from, to: [5, 5] }).marks)).toBe(false);
    expect(ends(dropped(page.as('wren'), thing, { from, to: centreOf(place!) }).marks)).toBe(true);
    const cards = taught('pairs', 'a = 1\nb = 2');
    const [first, ...rest] = cards.prepared.filter(({ rule }) => rule?.pair);
    const partner = rest.find(({ id }) => id === first!.rule!.pair!.with)!;
    const other = rest.find((cover) => cover !== partner)!;
    const opened = tapped(cards.as('wren'), first!).marks;
    expect(ends(opened, cards)).toBe(false);
    cards.put('wren', opened);
    expect(ends(tapped(cards.as('wren'), partner).marks, cards)).toBe(false);
    expect(ends(tapped(cards.as('wren'), other).marks, cards)).toBe(true);
  });
});

describe('a table for spreadsheets', () => {
  it('is as RFC 4180 has it, and no formula of it is carried out', () => {
    const rows = [
      ['Who', 'Right'],
      ['Ada "A." Lind; x', 2],
      ['=1+1', 'a,b'],
    ];
    expect(tableFile(rows)).toBe('\ufeffWho,Right\r\n"Ada ""A."" Lind; x",2\r\n"\'=1+1","a,b"\r\n');
  });
});
