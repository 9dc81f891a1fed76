import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { boxCentre } from '../src/geometry/turnedBox.js';
import {
  centreOf,
  dropped,
  endsTurn,
  filledIn,
  itemsOf,
  liesIn,
  restIn,
  solved,
  sortedByVotes,
  tapped,
} from '../src/answers/index.js';
import { isAnswerRule, MOST_FILLED } from '../src/answers/ruleCheck.js';
import type { ExerciseKind } from '../src/exercises/index.js';
import { ExerciseProblem, makeExercise } from '../src/exercises/index.js';
import type { Mark } from '../src/index.js';
import { isMark, markBounds } from '../src/index.js';
import { TaughtPage } from './helpers/answeredPage.js';
import { common } from './helpers/marks.js';

const AREA = { x: 0, y: 0, width: 1280, height: 720 };

class BoardPage extends TaughtPage {
  constructor(kind: ExerciseKind, text: string) {
    const made = makeExercise({
      ...{ kind, text, title: '', level: 'medium', seed: 1, area: AREA },
      words: { language: 'en' } as never,
    });
    super(made.map((mark, i) => ({ ...common(), ...mark, order: `a${String(i).padStart(4, '0')}1` })));
  }

  named(name: string): Mark {
    return this.prepared.find(({ alt, rule }) => alt === name && (rule?.moves ?? rule?.takes))!;
  }

  /** The cards of a column from its top. */
  column(name: string): string[] {
    const { x, width } = markBounds(this.named(name));
    const cards = this.prepared
      .filter(({ rule }) => rule?.moves)
      .map((card) => this.seenBy('class', card.id)!);
    return cards
      .filter((card) => centreOf(card)[0] > x && centreOf(card)[0] < x + width)
      .sort((a, b) => centreOf(a)[1] - centreOf(b)[1])
      .map(({ alt }) => alt!);
  }

  /** Drags a card into a column, to a height of it, 0 to 1. */
  drag(who: string, name: string, to: string, height: number) {
    const card = this.named(name);
    const { x, y, width, height: high } = markBounds(this.named(to));
    const from = centreOf(this.seenBy('class', card.id)!);
    const answer = dropped(this.as(who), card, { from, to: [x + width / 2, y + high * height] });
    return { refused: this.put(who, answer.marks), ...answer };
  }

  vote(who: string, name: string) {
    const counter = this.prepared.find(({ alt }) => alt === `${name}: +1`)!;
    // Both answers are computed before either is put, as in a browser.
    const page = this.as(who);
    const { marks } = tapped(page, counter);
    const sorted = sortedByVotes(page, counter, marks);
    return this.put(who, marks) ?? this.put(who, sorted.marks);
  }
}

const TEXT = 'To do: a, b, c\nIn hand: d\nDone:';

describe('columns of cards', () => {
  it('take a card at the height where it is put, close up where it was, and say nothing of right or wrong', () => {
    const page = new BoardPage('board', TEXT);
    const { refused, verdict } = page.drag('wren', 'b', 'In hand', 0);
    expect([refused, verdict]).toEqual([undefined, undefined]);
    expect([page.column('To do'), page.column('In hand'), page.column('Done')]).toEqual([
      ['a', 'c'],
      ['b', 'd'],
      [],
    ]);
    page.drag('wren', 'c', 'To do', 0);
    expect(page.column('To do')).toEqual(['c', 'a']);
    expect(page.drag('wren', 'c', 'Done', 0.9).refused).toBeUndefined();
    const top = markBounds(page.named('Done')).y;
    expect(markBounds(page.seenBy('class', page.named('c').id)!).y - top).toBeLessThan(12);
  });

  it('keep all cards in columns, none over another, whatever is dragged where by whom', () => {
    const step = fc.record({
      card: fc.constantFrom('a', 'b', 'c', 'd'),
      to: fc.constantFrom('To do', 'In hand', 'Done'),
      height: fc.double({ min: 0.02, max: 0.98, noNaN: true }),
      who: fc.constantFrom('wren', 'finch'),
    });
    fc.assert(
      fc.property(fc.array(step, { maxLength: 8 }), (steps) => {
        const page = new BoardPage('board', TEXT);
        for (const { card, to, height, who } of steps)
          expect(page.drag(who, card, to, height).refused).toBeUndefined();
        const columns = ['To do', 'In hand', 'Done'].map((name) => page.column(name));
        expect(columns.flat().sort()).toEqual(['a', 'b', 'c', 'd']);
        for (const names of columns)
          names.slice(1).forEach((name, i) => {
            const [upper, lower] = [names[i]!, name].map((one) =>
              markBounds(page.seenBy('class', page.named(one).id)!),
            );
            expect(lower!.y).toBeGreaterThanOrEqual(upper!.y + upper!.height - 0.1);
          });
        for (const mark of page.state.marks.values()) expect(isMark(mark)).toBe(true);
      }),
      { numRuns: 60 },
    );
  });

  it('put cards closer where there are more than fit, and keep all in the column', () => {
    const many = Array.from({ length: 24 }, (_, i) => `n${i}`);
    const page = new BoardPage('board', `All: ${many.join(', ')}\nNone:`);
    const { y, height } = markBounds(page.named('All'));
    page.drag('wren', 'n3', 'All', 0.99);
    expect(page.column('All').at(-1)).toBe('n3');
    for (const name of many) {
      const card = markBounds(page.seenBy('class', page.named(name).id)!);
      expect(card.y + card.height).toBeLessThan(y + height + 1);
    }
  });

  it('stand by votes, most first, and in their order where they have the same', () => {
    const page = new BoardPage('voteBoard', 'Ideas: a, b, c\nChosen:');
    for (const name of ['c', 'b', 'c']) expect(page.vote('wren', name)).toBeUndefined();
    expect(page.column('Ideas')).toEqual(['c', 'b', 'a']);
    page.vote('finch', 'a');
    expect(page.column('Ideas')).toEqual(['c', 'b', 'a']);
    page.drag('wren', 'a', 'Chosen', 0.5);
    page.drag('wren', 'c', 'Chosen', 0.9);
    expect([page.column('Ideas'), page.column('Chosen')]).toEqual([['b'], ['c', 'a']]);
    const numbers = page.prepared
      .filter(({ kind }) => kind === 'text')
      .map(({ id }) => page.seenBy('class', id) as Mark & { text: string });
    expect(
      numbers
        .map(({ text }) => text)
        .filter((text) => /^\d+$/.test(text))
        .sort(),
    ).toEqual(['1', '1', '2']);
  });

  it('end no turn by a vote on a card that stays where it was put, but by putting one there', () => {
    const page = new BoardPage('voteBoard', 'Ideas: a, b\nChosen:');
    const ends = (marks: readonly Mark[]) =>
      endsTurn(
        marks.map((mark) => ({ do: 'add', mark })),
        page.find,
      );
    const card = page.named('a');
    const { x, y } = markBounds(page.named('Chosen'));
    const put = dropped(page.as('wren'), card, { from: centreOf(card), to: [x + 20, y + 40] }).marks;
    expect(ends(put)).toBe(true);
    page.put('wren', put);
    const counter = page.prepared.find(({ alt }) => alt === 'a: +1')!;
    expect(ends(tapped(page.as('wren'), counter).marks)).toBe(false);
  });

  it('are no questions: nothing of them is an item, and a key leaves them as they are', () => {
    const page = new BoardPage('board', TEXT);
    expect(itemsOf(page.prepared, page.original)).toEqual([]);
    expect(solved(page.prepared)).toEqual([]);
  });

  it('need two to six columns', () => {
    expect(() => new BoardPage('board', 'One: a')).toThrow(ExerciseProblem);
    expect(() => new BoardPage('board', 'a:\nb:\nc:\nd:\ne:\nf:\ng: 1')).toThrow(ExerciseProblem);
    expect(() => new BoardPage('board', 'a:\nb:')).toThrow(ExerciseProblem);
  });
});

describe('blank cards', () => {
  const blank = (kind: ExerciseKind) => new BoardPage(kind, 'Want: _, _\nLearned:');
  const field = (page: BoardPage, name: string) =>
    page.prepared.find(({ alt, rule }) => alt === name && rule?.fill)!;

  it('are written on by the class, which is neither right nor wrong, and go on with their words', () => {
    const page = blank('board');
    const [one, other] = [field(page, 'Want 1'), field(page, 'Want 2')];
    for (const mark of page.prepared) expect(isMark(mark)).toBe(true);
    const answer = filledIn(page.as('wren'), one, 'Why is the sea salty?');
    expect(answer.verdict).toBeUndefined();
    expect(page.put('wren', answer.marks)).toBeUndefined();
    expect(page.drag('finch', 'Want 1', 'Learned', 0.5).refused).toBeUndefined();
    expect([page.column('Want'), page.column('Learned')]).toEqual([['Want 2'], ['Want 1']]);
    const words = page.seenBy('class', one.id)!;
    expect(words).toMatchObject({ text: 'Why is the sea salty?', standIn: { tries: 0 } });
    expect(liesIn(centreOf(words), page.seenBy('class', page.named('Want 1').id)!)).toBe(true);
    // Written anew where it lies now.
    expect(page.put('finch', filledIn(page.as('finch'), one, 'Rain').marks)).toBeUndefined();
    expect(page.seenBy('class', one.id)).toMatchObject({
      text: 'Rain',
      x: (words as typeof one & { x: number }).x,
    });
    expect(page.seenBy('class', other.id)).toMatchObject({ text: ' ' });
    expect(itemsOf(page.prepared, page.original)).toEqual([]);
    expect(solved(page.prepared)).toEqual([]);
  });

  it('can be voted for', () => {
    const page = blank('voteBoard');
    expect(page.vote('wren', 'Want 2')).toBeUndefined();
    expect(page.column('Want')).toEqual(['Want 2', 'Want 1']);
  });

  it('take no words where anybody may write that are longer than any field takes', () => {
    const page = blank('board');
    const long = 'x'.repeat(MOST_FILLED + 1);
    expect(page.put('wren', filledIn(page.as('wren'), field(page, 'Want 1'), long).marks)).toBe(
      'not-allowed',
    );
  });
});

describe('a rule of a place', () => {
  it('has one of two stacks, or none', () => {
    const takes = { things: ['a'], sendsBack: false, snaps: true };
    for (const stack of ['put', 'most']) expect(isAnswerRule({ takes: { ...takes, stack } })).toBe(true);
    expect(isAnswerRule({ takes: { ...takes, stack: 'other' } })).toBe(false);
    expect(isAnswerRule({ takes: { ...takes, more: 1 } })).toBe(false);
  });

  it('lets things rest in its middle, or well within it where it is bent', () => {
    const page = new BoardPage('board', TEXT);
    const place = page.named('Done');
    expect(restIn(place)).toEqual(boxCentre(markBounds(place)));
  });
});
