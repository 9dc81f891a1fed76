import type { AnswerRule, Mark, Space } from '@doodla/core';
import { standInId } from '@doodla/core';
import { isAnswerRule, itemsOf } from '@doodla/core/answers';
import { describe, expect, it } from 'vitest';
import { aShape, aText } from '../../core/test/helpers/marks.js';
import { answeredPage, copiesOn, originalsOn, startAgain } from '../src/answering/answeredPage';
import { cellBeside, isCell, wayFrom } from '../src/answering/cells';
import { rowsOfCopies, rowsTogether, tableOf } from '../src/answering/resultRows';
import { draftOf, keepingRule, newStep, ruleOf, setsOf } from '../src/answering/ruleDraft';
import { isCrowded, namedBy, taggedMarks, tagsOf } from '../src/answering/tags';
import { anythingGoes, solutionIn } from '../src/answering/solution';
import { answeredOn, isAnswered, seenOn } from '../src/roster/answeredCopies';

const box = (id: string, x: number, set: Partial<Mark> = {}): Mark =>
  aShape({ id, page: 'p', x, y: 0, width: 100, height: 100, ...set } as never);
const FREELY: AnswerRule = { moves: { movement: { how: 'freely' }, copies: false } };

describe('a rule that is made', () => {
  const pivot = box('pivot', 0);
  const page = [pivot, box('area', 300)];

  it.each<[string, AnswerRule]>([
    ['a tap', { tap: { steps: [{ do: 'hide', marks: ['pivot'] }], once: true } }],
    ['moving in an area', { moves: { movement: { how: 'inside', area: 'area' }, copies: true } }],
    ['turning', { moves: { movement: { how: 'turning', x: 50, y: 50 }, copies: false } }],
    ['a place', { takes: { things: ['area'], sendsBack: false, snaps: true } }],
    ['words', { fill: { as: 'words', answers: ['sun', 'the sun'], typos: false } }],
    ['words of any kind', { fill: { as: 'words', answers: [], typos: false } }],
    ['a right answer', { tap: { steps: [], once: false, is: 'right' }, of: ['area'] }],
    [
      'one by chance',
      { tap: { steps: [{ do: 'pick', sets: [['pivot'], ['area']], again: true }], once: false } },
    ],
    ['a sound', { tap: { steps: [{ do: 'play', page: 'p' }], once: false } }],
    ['a pair', { pair: { with: 'area' } }],
    ['lines', { trace: { lines: [{ from: [0, 0], to: [9, 9], marks: ['area'] }], step: 9 } }],
    ['a number', { fill: { as: 'number', value: -9.81, within: 0.05, unit: 'm/s²' } }],
  ])('with %s is the same after it was looked at', (_what, rule) => {
    expect(ruleOf(draftOf({ rule }, page), page)).toEqual(rule);
  });

  it.each([
    [{ steps: [newStep('show', 'en')] }, 'nothing-chosen'],
    [{ steps: [newStep('speak', 'en')] }, 'nothing-chosen'],
    [{ steps: [newStep('page', 'en')] }, 'nothing-chosen'],
    [{ steps: [newStep('play', 'en')] }, 'nothing-chosen'],
    [{ steps: [newStep('pick', 'en')] }, 'nothing-chosen'],
    [{ moves: 'along' as const }, 'no-held'],
    [{ fill: 'words' as const, answers: ' \n ' }, 'no-answer'],
    [{ fill: 'number' as const, answers: 'ten' }, 'no-number'],
    [{ fill: 'number' as const, answers: '10', within: '-1' }, 'no-number'],
  ])('says what is missing in %j', (set, problem) => {
    expect(ruleOf({ ...draftOf({}, page), ...set }, page)).toBe(problem);
  });

  it('is none where nothing is chosen, and else what the server takes', () => {
    expect(ruleOf(draftOf({}, page), page)).toBeNull();
    const steps = [newStep('colour', 'en'), newStep('move', 'en')].map((step) => ({
      ...step,
      marks: ['pivot'],
    }));
    expect(isAnswerRule(ruleOf({ ...draftOf({}, page), steps: steps }, page))).toBe(true);
  });

  it('picks what is grouped together', () => {
    const marks = [box('a', 0, { group: 'g' }), box('b', 0, { group: 'g' }), box('c', 0)];
    expect(setsOf(['a', 'c', 'b'], marks)).toEqual([['a', 'b'], ['c']]);
  });

  it('lets what belongs somewhere be moved', () => {
    const rule: AnswerRule = { takes: { things: ['a', 'b'], sendsBack: true, snaps: true } };
    const place = box('place', 0);
    const marks = [place, box('a', 200), box('b', 300, { rule: FREELY }), box('c', 400)];
    expect(keepingRule(place, { rule, hidden: false }, marks)).toEqual([
      { do: 'patch', mark: 'place', set: { rule, hidden: false } },
      { do: 'patch', mark: 'a', set: { rule: FREELY } },
    ]);
  });

  it('is said by tags, and by lines to what it names', () => {
    const rule: AnswerRule = {
      tap: {
        steps: [
          { do: 'show', marks: ['a', 'b'] },
          { do: 'count', mark: 'c', by: 1 },
        ],
        once: false,
      },
      moves: { movement: { how: 'along', line: 'd' }, copies: false },
      takes: { things: ['a'], sendsBack: true, snaps: true },
    };
    expect(tagsOf({ rule, hidden: true })).toEqual(['tap', 'moves', 'takes', 'hidden']);
    expect(namedBy({ rule })).toEqual(['a', 'b', 'c', 'd']);
    expect(tagsOf({})).toEqual([]);
  });

  it('are said of all, or where they are many of what is selected and what that names', () => {
    const marks = Array.from({ length: 61 }, (_, i) =>
      box(`m${i}`, i, { rule: { tap: { steps: [{ do: 'show', marks: [`m${i + 1}`] }], once: false } } }),
    );
    const idsOf = (all: readonly { id: string }[]) => all.map(({ id }) => id);
    expect(isCrowded(marks.slice(1))).toBe(false);
    expect(taggedMarks(marks.slice(1), new Set())).toHaveLength(60);
    expect(isCrowded(marks)).toBe(true);
    expect(taggedMarks(marks, new Set())).toEqual([]);
    expect(idsOf(taggedMarks(marks, new Set(['m4'])))).toEqual(['m4', 'm5']);
  });
});

describe('a solution by example', () => {
  const place = box('place', 0, { rule: { takes: { things: ['old'], sendsBack: true, snaps: true } } });
  const empty = box('empty', 900, { rule: { takes: { things: ['kept'], sendsBack: true, snaps: true } } });
  const thing = box('thing', 300, { rule: FREELY });

  it('is what lies in each place, whatever was sent back before', () => {
    expect(anythingGoes(place).rule?.takes?.sendsBack).toBe(false);
    const moved = { ...thing, id: standInId('thing', 'class'), x: 20 } as Mark;
    expect(solutionIn([place, empty, thing], new Map([[moved.id, moved]]))).toEqual([
      {
        do: 'patch',
        mark: 'place',
        set: { rule: { takes: { things: ['thing'], sendsBack: true, snaps: true } } },
      },
    ]);
    expect(solutionIn([place, empty, thing], new Map())).toEqual([]);
  });
});

describe('a page that is answered', () => {
  it('has marks with rules, what belongs to them, and what stands for them where one works', () => {
    const prepared = [
      box('card', 0, { rule: FREELY, group: 'g' }),
      aText({ id: 'word', page: 'p', group: 'g' }),
      box('plain', 500),
      box('elsewhere', 0, { page: 'q', rule: FREELY }),
      box('shown', 700, { hidden: true }),
    ] as Mark[];
    const stands = (id: string, of: string, space: 'class' | 'student:wren', copy = false): Mark => ({
      ...box(id, 50),
      space,
      standIn: { for: of, tries: 0, taps: 0, ...(copy && { copy }) },
    });
    const own = 'student:wren';
    const written = [
      stands(standInId('card', 'class'), 'card', 'class'),
      stands(standInId('card', own), 'card', own),
      stands('pulled', 'card', own, true),
      stands('theirs', 'card', 'class', true),
    ];
    const state = (marks: readonly Mark[]) => ({
      state: { marks: new Map(marks.map((mark) => [mark.id, mark])) },
    });
    const done: unknown[] = [];
    const desk = {
      pageId: { get: () => 'p' } as never,
      space: own,
      newMark: () => undefined,
      layers: [{ log: state(prepared) }, { log: state(written) }],
      target: {
        ...state(written),
        actor: { id: 'wren' } as never,
        perform: (changes: unknown) => (done.push(changes), 'x'),
      },
    } as const;
    const originals = originalsOn(desk);
    expect(originals.map(({ id }) => id)).toEqual(['card', 'shown', 'word']);
    const page = answeredPage(desk, originals);
    expect(page.now('card')?.space).toBe(own);
    expect(page.original(standInId('card', own))).toBeUndefined();
    // By the rules that it is given, not those of the log: while a solution is shown, nothing is sent back.
    const other = originals.map((mark) => ({ ...mark, rule: null }));
    expect(answeredPage(desk, other).original('card')?.rule).toBeNull();
    expect(answeredPage({ ...desk, space: 'class' }, originals).now('card')?.space).toBe('class');
    expect(copiesOn(desk, own).map(({ id }) => id)).toEqual(['pulled', 'theirs']);
    startAgain(desk);
    expect(done).toEqual([
      [
        { do: 'remove', mark: standInId('card', own) },
        { do: 'remove', mark: 'pulled' },
      ],
    ]);
  });
});

describe('cells of words that cross', () => {
  const letter: AnswerRule = { fill: { as: 'words', answers: ['A'], typos: false } };
  const cell = (x: number, y: number) =>
    aText({
      id: `${x} ${y}`,
      x: x * 40,
      y: y * 40,
      width: 40,
      text: ' ',
      rule: letter,
      style: { ...aText().style, size: 20 },
    });
  const across = [0, 1, 2].map((x) => cell(x, 0));
  const down = [1, 2].map((y) => cell(2, y));
  const cells = [...across, ...down];

  it('are gone through along the word, and round its corner by the other one', () => {
    expect(cells.every(isCell)).toBe(true);
    // Where anything may be written is more than a letter.
    expect(isCell({ rule: { fill: { as: 'words', answers: [], typos: false } } })).toBe(false);
    expect(cellBeside(cells, across[0]!, 'across', 1)).toBe(across[1]);
    expect(cellBeside(cells, across[1]!, 'across', -1)).toBe(across[0]);
    expect(cellBeside(cells, across[2]!, 'across', 1)).toBeUndefined();
    expect(cellBeside(cells, across[2]!, 'down', 1)).toBe(down[0]);
    expect(wayFrom(cells, down[1]!, 'across')).toBe('down');
    expect(wayFrom(cells, across[2]!, 'across')).toBe('across');
  });
});

describe('who has answered what', () => {
  const place = box('place', 300, { rule: { takes: { things: ['a'], sendsBack: false, snaps: true } } });
  const originals = [place, ...['a', 'b'].map((id, i) => box(id, i * 10, { rule: FREELY, alt: id }))];
  const looked = (marks: readonly Mark[]) => ({
    items: itemsOf(originals, (id) => originals.find((mark) => mark.id === id)),
    originals,
    marks: new Map(marks.map((mark) => [mark.id, mark])),
  });
  const put = (
    space: Space,
    author: string,
    at: string | undefined,
    tries: number,
    createdAt = 9000,
  ): Mark => {
    const standIn = { for: 'a', tries, taps: 0, since: 3000, ...(at && { at }) };
    return box(standInId('a', space), 0, { space, author, standIn, createdAt });
  };
  const words = { who: 'Who', right: 'Right', first: 'First', wrong: 'Wrong', minutes: 'Min' };
  const states = { open: 'open', right: 'right', wrong: 'wrong' };

  it('is told by copies, and as a table', () => {
    const copies = (['student:wren', 'student:nash'] as const).map((space) => ({
      space,
      name: space.slice(8),
    }));
    const known = looked([put('student:wren', 'wren', 'place', 2)]);
    const rows = rowsOfCopies(known, copies);
    expect(rows.map(({ name, summary }) => [name, summary.right, summary.first, summary.tries])).toEqual([
      ['wren', 1, 0, 2],
      ['nash', 0, 0, 0],
    ]);
    expect(tableOf(known.items, rows, { ...words, states })).toEqual([
      ['Who', 'Right', 'First', 'Wrong', 'Min', 'a'],
      ['wren', 1, 0, 2, 0.1, 'right (2)'],
      ['nash', 0, 0, 0, '', ''],
    ]);
  });

  it('is told by who answered last where all answer together', () => {
    const people = ['wren', 'nash'].map((id) => ({ id, name: id }));
    const rows = rowsTogether(looked([put('class', 'nash', 'place', 0)]), people, 'All');
    expect(rows.map(({ name, summary }) => [name, summary.first])).toEqual([
      ['All', 1],
      ['nash', 1],
    ]);
  });
});

describe('copies of a page that answers', () => {
  it('show each thing once: as it is there, or as all have it', () => {
    const things = [box('card', 0), box('cover', 200)];
    const stands = (of: string, space: 'student:wren' | 'class', hidden = false): Mark =>
      box(standInId(of, space), 9, { space, hidden, standIn: { for: of, tries: 0, taps: 0 } });
    const ink = box('ink', 700);
    const wrens = [stands('card', 'student:wren'), stands('cover', 'student:wren', true), ink];
    const answered = answeredOn([{ marks: wrens }, { marks: [] }]);
    expect([...answered]).toEqual(['card', 'cover']);
    expect([...things, box('other', 1)].map((mark) => isAnswered(mark, answered))).toEqual([
      true,
      true,
      false,
    ]);
    expect(isAnswered(stands('card', 'class'), answered)).toBe(true);
    const ids = (space: 'student:wren' | 'student:nash', marks: readonly Mark[]) =>
      seenOn({ space, marks }, things).map(({ id }) => id);
    expect(ids('student:wren', wrens)).toEqual([standInId('card', 'student:wren'), 'ink']);
    expect(ids('student:nash', [])).toEqual(['card', 'cover']);
    expect(seenOn({ space: 'student:wren', marks: wrens }, [])).toBe(wrens);
  });
});
