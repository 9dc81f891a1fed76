import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Answer } from '../src/answers/index.js';
import { centreOf, copyMoved, dropped, filledIn, isAnswerRule, tapped } from '../src/answers/index.js';
import type { AnswerRule, Mark, MarkPatch, Movement, Point, TapStep } from '../src/index.js';
import {
  copiesOf,
  invertChanges,
  isMark,
  isMarkPatch,
  patchMark,
  standInId,
  stoodFor,
} from '../src/index.js';
import { TaughtPage } from './helpers/answeredPage.js';
import { aShape, aText } from './helpers/marks.js';

const at = (x: number, y: number, width = 60, height = 40) => ({ x, y, width, height });
const box = (id: string, place: object, set: object = {}) => aShape({ id, rotation: 0, ...place, ...set });
const words = (id: string, text: string, set: object = {}) => aText({ id, text, ...set });
const movable = (movement: Movement, copies = false): AnswerRule => ({ moves: { movement, copies } });
const FREELY = movable({ how: 'freely' });

/** Two boxes that take a thing each, the things, and a pile. */
const sorting = (sendsBack = true, snaps = true) => [
  box('left', at(0, 0, 200, 200), { rule: { takes: { things: ['cat'], sendsBack, snaps } } }),
  box('right', at(300, 0, 200, 200), { rule: { takes: { things: ['oak'], sendsBack, snaps } } }),
  box('cat', at(0, 400), { rule: FREELY }),
  box('oak', at(100, 400), { rule: FREELY }),
  box('pile', at(600, 400), { rule: movable({ how: 'freely' }, true) }),
];

/** Somebody takes a thing by its middle and lets go of it there. */
function drag(page: TaughtPage, id: string, to: Point, student = 'wren', space = 'class'): Answer {
  const seen = page.as(student, space as never);
  const answer = dropped(seen, page.original(id)!, { from: centreOf(seen.now(id)!), to });
  expect(page.put(student, answer.marks)).toBeUndefined();
  return answer;
}

const middleOf = (page: TaughtPage, id: string, space = 'class') =>
  centreOf(page.seenBy(space as never, id)!).map(Math.round);

describe('a thing that belongs to a place', () => {
  it('snaps into its place, and is sent back from another, which is counted', () => {
    const page = new TaughtPage(sorting());
    expect(drag(page, 'cat', [350, 50])).toMatchObject({ verdict: 'wrong', sentBack: true });
    expect(middleOf(page, 'cat')).toEqual([30, 420]);
    expect(drag(page, 'cat', [20, 150]).verdict).toBe('right');
    expect(middleOf(page, 'cat')).toEqual([100, 100]);
    expect(page.seenBy('class', 'cat')!.standIn).toMatchObject({ for: 'cat', at: 'left', tries: 1, taps: 0 });
    // What was prepared stays as it is, and is seen no more where something stands for it.
    expect(page.standing('class').map(({ id }) => stoodFor(id) ?? id)).toEqual([
      'left',
      'right',
      'oak',
      'pile',
      'cat',
    ]);
  });

  it('stays where it is wrong if it is not sent back, and is nowhere once it is taken out', () => {
    const page = new TaughtPage(sorting(false, false));
    expect(drag(page, 'oak', [50, 60])).toMatchObject({ verdict: 'wrong' });
    expect(middleOf(page, 'oak')).toEqual([50, 60]);
    expect(page.seenBy('class', 'oak')!.standIn).toMatchObject({ at: 'left', tries: 1 });
    expect(drag(page, 'oak', [800, 700]).verdict).toBeUndefined();
    expect(page.seenBy('class', 'oak')!.standIn).toEqual({ for: 'oak', tries: 1, taps: 0, since: 1e12 });
  });

  it('lies beside what is in its place already', () => {
    const things = ['a', 'b', 'c', 'd'].map((id, i) => box(id, at(100 * i, 500), { rule: FREELY }));
    const takes = { things: ['a', 'b', 'c', 'd'], sendsBack: true, snaps: true };
    const page = new TaughtPage([box('place', at(0, 0, 220, 160), { rule: { takes } }), ...things]);
    for (const { id } of things) drag(page, id, [100, 80]);
    const middles = things.map(({ id }) => centreOf(page.seenBy('class', id)!));
    for (const [i, [x, y]] of middles.entries())
      for (const [ox, oy] of middles.slice(0, i))
        expect(Math.abs(x - ox) >= 60 || Math.abs(y - oy) >= 40).toBe(true);
  });

  it('is each student’s own on a copy, with what the class has answered under it', () => {
    const page = new TaughtPage(sorting());
    drag(page, 'cat', [20, 150]);
    drag(page, 'cat', [700, 700], 'nash', 'student:nash');
    expect(middleOf(page, 'cat')).toEqual([100, 100]);
    expect(middleOf(page, 'cat', 'student:nash')).toEqual([700, 700]);
    const seen = page.standing('student:nash').filter((mark) => mark.standIn?.for === 'cat');
    expect(seen.map(({ space }) => space)).toEqual(['student:nash']);
  });

  it('is of whoever answers last, and undone to what was before', () => {
    const page = new TaughtPage(sorting());
    drag(page, 'cat', [700, 700]);
    const before = page.seenBy('class', 'cat')!;
    const seen = page.as('nash');
    const { marks } = dropped(seen, page.original('cat')!, { from: centreOf(before), to: [800, 100] });
    const changes = marks.map((mark) => ({ do: 'add' as const, mark }));
    const back = invertChanges(page.state, changes);
    expect(page.put('nash', marks)).toBeUndefined();
    expect(page.seenBy('class', 'cat')!.author).toBe('nash');
    expect(back).toEqual([{ do: 'add', mark: before }]);
  });
});

describe('how a thing is moved', () => {
  const area = box('area', at(100, 100, 200, 100));
  const line = aShape({ id: 'line', ...at(0, 0, 100, 100), rotation: 0, form: 'bracket' } as never);

  it('stays with its middle in an area', () => {
    const page = new TaughtPage([
      area,
      box('thing', at(150, 130), { rule: movable({ how: 'inside', area: 'area' }) }),
    ]);
    drag(page, 'thing', [900, 150]);
    expect(middleOf(page, 'thing')).toEqual([300, 150]);
    drag(page, 'thing', [200, 180]);
    expect(middleOf(page, 'thing')).toEqual([200, 180]);
  });

  it('goes along a line, and turns about a point', () => {
    const pivot = { how: 'turning', x: 500, y: 500 } as const;
    const page = new TaughtPage([
      line,
      box('bead', at(0, 0), { rule: movable({ how: 'along', line: 'line' }) }),
      box('hand', at(570, 480, 60, 40), { rule: movable(pivot) }),
    ]);
    drag(page, 'hand', [500, 900]);
    expect(middleOf(page, 'hand')).toEqual([500, 600]);
    expect(page.seenBy('class', 'hand')).toMatchObject({ rotation: 90 });
    drag(page, 'bead', [400, 37]);
    const [x, y] = centreOf(page.seenBy('class', 'bead')!);
    expect(x).toBeLessThanOrEqual(101);
    expect(y).toBeLessThanOrEqual(101);
  });

  it('moves its group along', () => {
    const page = new TaughtPage([
      box('card', at(0, 0), { group: 'g', rule: FREELY }),
      words('word', 'sun', { x: 10, y: 10, group: 'g' }),
    ]);
    const word = middleOf(page, 'word');
    drag(page, 'card', [130, 120]);
    expect(middleOf(page, 'card')).toEqual([130, 120]);
    expect(middleOf(page, 'word')).toEqual([word[0]! + 100, word[1]! + 100]);
  });

  it('is pulled from a pile without end, and laid back on it', () => {
    const page = new TaughtPage(sorting());
    drag(page, 'pile', [50, 600]);
    drag(page, 'pile', [150, 600], 'nash');
    const copies = page.standing('class').filter((mark) => mark.standIn?.copy);
    expect(copies.map((mark) => centreOf(mark))).toEqual([
      [50, 600],
      [150, 600],
    ]);
    expect(page.standing('class').some(({ id }) => id === 'pile')).toBe(true);
    const moved = copyMoved(page.as('nash'), copies[1]!, { from: [150, 600], to: [200, 650] }) as Mark;
    expect(page.put('nash', [moved])).toBeUndefined();
    expect(centreOf(page.find(copies[1]!.id)!)).toEqual([200, 650]);
    expect(copyMoved(page.as('nash'), moved, { from: [200, 650], to: [630, 420] })).toBe('gone');
  });
});

describe('a tap', () => {
  const press = (page: TaughtPage, id: string, student = 'wren') => {
    const answer = tapped(page.as(student), page.original(id)!);
    expect(page.put(student, answer.marks)).toBeUndefined();
    return answer;
  };
  const button = (steps: TapStep[], once = false) =>
    box('button', at(0, 0), { rule: { tap: { steps, once } } });

  it('shows, hides, moves, colours, writes and counts, in its order', () => {
    const page = new TaughtPage([
      button([
        { do: 'show', marks: ['answer'] },
        { do: 'hide', marks: ['cover'] },
        { do: 'move', marks: ['thing'], dx: 50, dy: -20 },
        { do: 'colour', marks: ['thing', 'answer'], colour: '#123456' },
        { do: 'text', mark: 'said', text: 'Well done' },
        { do: 'count', mark: 'points', by: 3 },
        { do: 'speak', text: 'Well done', language: 'en' },
        { do: 'page', page: 'next' },
      ]),
      words('answer', '42', { hidden: true }),
      box('cover', at(0, 100)),
      box('thing', at(100, 100)),
      words('said', '…'),
      words('points', '7 points'),
    ]);
    expect(page.standing('class').some(({ id }) => id === 'answer')).toBe(false);
    const { asides } = press(page, 'button');
    expect(asides.map((aside) => aside.do)).toEqual(['speak', 'page']);
    press(page, 'button', 'nash');
    const shown = new Map(page.standing('class').map((mark) => [stoodFor(mark.id) ?? mark.id, mark]));
    expect([...shown.keys()].sort()).toEqual(['answer', 'button', 'points', 'said', 'thing']);
    expect(shown.get('answer')).toMatchObject({ text: '42', style: { colour: '#123456' } });
    expect(shown.get('thing')).toMatchObject({ x: 150, y: 80 });
    expect(shown.get('said')).toMatchObject({ text: 'Well done' });
    expect(shown.get('points')).toMatchObject({ text: '13' });
  });

  it('turns to and fro, or counts once', () => {
    const page = new TaughtPage([button([{ do: 'swap', marks: ['card'] }]), box('card', at(200, 0))]);
    const isThere = () => page.standing('class').some(({ id }) => (stoodFor(id) ?? id) === 'card');
    for (const shown of [false, true, false]) {
      press(page, 'button');
      expect(isThere()).toBe(shown);
    }
    const once = new TaughtPage([
      button([{ do: 'count', mark: 'points', by: 1 }], true),
      words('points', '0'),
    ]);
    for (let i = 0; i < 3; i++) press(once, 'button');
    expect(once.seenBy('class', 'points')).toMatchObject({ text: '1' });
  });
});

describe('what is filled in', () => {
  it('is kept, right or wrong, with how often it was wrong', () => {
    const fill = { as: 'words', answers: ['photosynthesis'], typos: true } as const;
    const page = new TaughtPage([words('gap', '…', { rule: { fill } })]);
    const type = (text: string) => {
      const answer = filledIn(page.as('wren'), page.original('gap')!, text);
      expect(page.put('wren', answer.marks)).toBeUndefined();
      return answer.verdict;
    };
    expect([type('breathing'), type(''), type('fotosynthesis'), type('Photosynthesis ')]).toEqual([
      'wrong',
      undefined,
      'right',
      'right',
    ]);
    expect(page.seenBy('class', 'gap')).toMatchObject({ text: 'Photosynthesis ', standIn: { tries: 1 } });
    type('  ');
    expect(page.seenBy('class', 'gap')).toMatchObject({ text: '…', standIn: { tries: 1 } });
  });
});

describe('what the rules do not let', () => {
  const student = { id: 'wren', role: 'student' as const, tables: [] };
  const moved = (page: TaughtPage, set: MarkPatch & Partial<Mark>, id = 'cat'): Mark => {
    const answer = dropped(page.as('wren'), page.original(id)!, { from: [0, 0], to: [500, 300] });
    return { ...patchMark(answer.marks[0]!, set), ...set } as Mark;
  };

  it.each<[string, (page: TaughtPage) => Mark]>([
    ['another colour', (page) => moved(page, { style: { fill: '#ff0000' } } as never)],
    ['another size', (page) => moved(page, { width: 300 })],
    ['a rule of one’s own', (page) => moved(page, { rule: FREELY })],
    ['a lock', (page) => moved(page, { locked: true })],
    ['the id of something else', (page) => moved(page, { id: 'left' })],
    ['a thing of another page', (page) => moved(page, { standIn: { for: 'nothing', tries: 0, taps: 0 } })],
    [
      'what cannot be moved',
      (page) => moved(page, { id: standInId('left', 'class'), standIn: { for: 'left', tries: 0, taps: 0 } }),
    ],
    ['tries that are wiped', (page) => moved(page, { standIn: { for: 'cat', tries: -1, taps: 0 } })],
    ['what no tap hides', (page) => moved(page, { hidden: true })],
    [
      'a copy of what is no pile',
      (page) => moved(page, { id: 'mine', standIn: { for: 'cat', copy: true, tries: 0, taps: 0 } }),
    ],
    ['the name of another', (page) => moved(page, { author: 'nash' })],
    [
      'a rule that is not of it',
      (page) => moved(page, { standIn: { for: 'cat', by: 'pile', tries: 0, taps: 0 }, x: 3 }),
    ],
  ])('%s', (_what, make) => {
    const page = new TaughtPage(sorting());
    expect(page.put('wren', [make(page)])).toBeDefined();
    expect(page.state.marks.size).toBe(0);
  });

  it('rules and hiding by students, and changes of what stands for something', () => {
    const page = new TaughtPage(sorting());
    for (const set of [{ rule: FREELY }, { hidden: true }])
      expect(page.put('wren', [{ ...box('own', at(0, 0)), author: 'wren', ...set }])).toBeDefined();
    drag(page, 'cat', [700, 700]);
    const id = standInId('cat', 'class');
    expect(page.does(student, [{ do: 'patch', mark: id, set: { hidden: true } }])).toBe('not-allowed');
  });

  it('leaves nothing that a rule does not explain, whatever is done in whatever order', () => {
    const steps: TapStep[] = [
      { do: 'swap', marks: ['cat'] },
      { do: 'move', marks: ['oak'], dx: 40, dy: 40 },
      { do: 'colour', marks: ['cat'], colour: '#00ff00' },
    ];
    const spot = fc.tuple(fc.integer({ min: -50, max: 900 }), fc.integer({ min: -50, max: 700 }));
    const act = fc.oneof(
      fc.record({ drag: fc.constantFrom('cat', 'oak', 'pile'), to: spot }),
      fc.constant({ tap: true as const }),
    );
    const who = fc.constantFrom(['wren', 'class'], ['nash', 'class'], ['nash', 'student:nash']);
    fc.assert(
      fc.property(fc.array(fc.tuple(act, who), { maxLength: 14 }), fc.boolean(), (acts, back) => {
        const page = new TaughtPage([
          ...sorting(back),
          box('button', at(900, 0), { rule: { tap: { steps, once: false } } }),
        ]);
        for (const [one, [name, space]] of acts) {
          if ('drag' in one) drag(page, one.drag, one.to, name, space);
          else
            expect(
              page.put(name, tapped(page.as(name, space as never), page.original('button')!).marks),
            ).toBeUndefined();
        }
        for (const mark of page.state.marks.values()) expect(isMark(mark)).toBe(true);
        // However it was answered, each thing is to be seen once at most.
        for (const space of ['class', 'student:nash'] as const) {
          const seen = page
            .standing(space)
            .flatMap((mark) => (mark.standIn?.copy ? [] : [stoodFor(mark.id) ?? mark.id]));
          expect(new Set(seen).size).toBe(seen.length);
        }
      }),
    );
  });
});

describe('what stands for something', () => {
  it('is moved by selecting it by teachers alone, and copied as a mark of its own', () => {
    const page = new TaughtPage(sorting());
    drag(page, 'cat', [700, 700]);
    const id = standInId('cat', 'class');
    const move = (by: 'teacher' | 'student', mark = id) =>
      page.does({ id: 'wren', role: by, tables: [] }, [{ do: 'patch', mark, set: { x: 5 } }]);
    expect(move('student')).toBe('not-allowed');
    expect(move('teacher')).toBeUndefined();
    const [copy] = copiesOf([page.find(id)!], () => 'copy');
    expect(copy).toMatchObject({ id: 'copy', x: 5 });
    expect(copy).not.toHaveProperty('standIn');
    // An id that only looks like that of a stand-in is a student's own mark.
    const own = { ...box('a--b', at(0, 0)), author: 'wren' };
    page.state.marks.set(own.id, own);
    expect(move('student', own.id)).toBeUndefined();
  });
});

describe('a rule', () => {
  const whole: AnswerRule = {
    tap: { steps: [{ do: 'count', mark: 'a', by: 1 }], once: true },
    moves: { movement: { how: 'inside', area: 'b' }, copies: false },
    takes: { things: ['c'], sendsBack: true, snaps: false },
    fill: { as: 'number', value: 9.81, within: 0.02, unit: 'm/s²' },
  };

  it.each<[string, unknown]>([
    ['nothing', {}],
    ['an unknown part', { ...whole, runs: 'alert(1)' }],
    ['no steps', { tap: { steps: [], once: false } }],
    ['an unknown step', { tap: { steps: [{ do: 'open', page: 'x' }], once: false } }],
    [
      'a step with something beside',
      { tap: { steps: [{ do: 'page', page: 'x', address: 'y' }], once: false } },
    ],
    [
      'a colour that is none',
      { tap: { steps: [{ do: 'colour', marks: ['a'], colour: 'red' }], once: false } },
    ],
    [
      'a place that is endless',
      { moves: { movement: { how: 'turning', x: Infinity, y: 0 }, copies: false } },
    ],
    ['an empty answer', { fill: { as: 'words', answers: [''], typos: false } }],
    ['a step by the name of a method', { tap: { steps: [{ do: 'toString' }], once: false } }],
  ])('cannot be %s', (_what, rule) => expect(isAnswerRule(rule)).toBe(false));

  it('goes with its mark, can be changed, and is of the copies where its marks are copied', () => {
    const mark = box('m', at(0, 0), { rule: whole, hidden: true });
    expect(isMark(mark)).toBe(true);
    expect(isMark({ ...mark, rule: { tap: 1 } })).toBe(false);
    expect(isMarkPatch('shape', { rule: null })).toBe(true);
    expect(isMarkPatch('shape', { rule: whole, hidden: false })).toBe(true);
    expect(isMarkPatch('shape', { standIn: { for: 'x', tries: 0, taps: 0 } })).toBe(false);
    const [copy, area] = copiesOf(
      [mark, box('b', at(9, 9))],
      (() => {
        let n = 0;
        return () => `copy${n++}`;
      })(),
    );
    expect(copy!.rule!.moves).toEqual({ movement: { how: 'inside', area: area!.id }, copies: false });
    expect(copy!.rule!.takes!.things).toEqual(['c']);
  });

  it('is taken back by what it was before', () => {
    const page = new TaughtPage([]);
    const mark = box('m', at(0, 0));
    page.state.marks.set('m', mark);
    const back = invertChanges(page.state, [{ do: 'patch', mark: 'm', set: { rule: whole, hidden: true } }]);
    expect(back).toEqual([{ do: 'patch', mark: 'm', set: { rule: null, hidden: false } }]);
  });
});
