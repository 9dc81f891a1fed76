import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Poll, PollState } from '../src/index.js';
import { barsOf, isAnswerTo, isPoll, medianOf, POLL_KINDS, pollForStudents } from '../src/index.js';

const poll = (set: Partial<Poll> = {}): Poll => ({
  id: 'q',
  kind: 'answers',
  question: 'Which bridge?',
  options: ['beam', 'arch', 'truss'],
  anonymous: false,
  hidden: true,
  ...set,
});
const numbers = poll({ kind: 'number', options: [] });
const answered = (...values: (number | string)[]) => values.map((value) => ({ student: null, value }));

describe('a poll', () => {
  it.each([
    ['yes or no', { kind: 'yes-no', options: ['yes', 'no'] }],
    ['letters', { kind: 'letters', options: ['A', 'B', 'C'] }],
    ['answers of one’s own', {}],
    ['a number', { kind: 'number', options: [] }],
    ['words', { kind: 'words', options: [], question: '' }],
  ] as const)('of %s can be asked', (_, set) => expect(isPoll(poll(set))).toBe(true));

  it.each([
    ['nothing', null],
    ['one answer', poll({ options: ['beam'] })],
    ['the same answer twice', poll({ options: ['beam', ' Beam'] })],
    ['an empty answer', poll({ options: ['beam', ' '] })],
    ['too many answers', poll({ options: Array.from({ length: 9 }, (_, i) => `a${i}`) })],
    ['a kind that there is not', { ...poll(), kind: 'essay' }],
    ['a number with answers', { ...numbers, options: ['1', '2'] }],
    ['more fields', { ...poll(), correct: 1 }],
    ['a question without end', poll({ question: 'x'.repeat(301) })],
  ])('is not %s', (_, value) => expect(isPoll(value)).toBe(false));

  it.each([
    [poll(), 2, true],
    [poll(), 3, false],
    [poll(), -1, false],
    [poll(), 0.5, false],
    [poll(), '1', false],
    [numbers, -2.5, true],
    [numbers, Infinity, false],
    [numbers, NaN, false],
    [poll({ kind: 'words', options: [] }), 'truss', true],
    [poll({ kind: 'words', options: [] }), '  ', false],
    [poll({ kind: 'words', options: [] }), 'x'.repeat(201), false],
  ])('%# takes what answers it', (asked, value, is) => expect(isAnswerTo(asked, value)).toBe(is));
});

describe('what was answered', () => {
  it('is counted by option, each answer once', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(2)), (given) => {
        const bars = barsOf(poll(), answered(...given));
        expect(bars.map(({ label }) => label)).toEqual(['beam', 'arch', 'truss']);
        expect(bars.reduce((sum, { count }) => sum + count, 0)).toBe(given.length);
        bars.forEach(({ count }, i) => expect(count).toBe(given.filter((value) => value === i).length));
      }),
    );
  });

  it('of few numbers is counted by number, in their order', () => {
    expect(barsOf(numbers, answered(10, 2, 10, -1))).toEqual([
      { label: '-1', count: 1 },
      { label: '2', count: 1 },
      { label: '10', count: 2 },
    ]);
  });

  it('of many numbers falls into the classes that Sturges has: seven for sixty-four of them', () => {
    const bars = barsOf(numbers, answered(...Array.from({ length: 64 }, (_, i) => i)));
    expect(bars).toHaveLength(7);
    expect(bars.reduce((sum, { count }) => sum + count, 0)).toBe(64);
    expect(bars[0]!.label).toBe('0 – 9');
  });

  it('leaves no number out, whatever they are', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -1e9, max: 1e9, noNaN: true }), { minLength: 1 }), (given) => {
        const bars = barsOf(numbers, answered(...given));
        expect(bars.reduce((sum, { count }) => sum + count, 0)).toBe(given.length);
      }),
    );
  });

  it('of words counts what is written alike, most first', () => {
    const words = poll({ kind: 'words', options: [] });
    expect(barsOf(words, answered('arch', 'Truss', ' truss', 'TRUSS '))).toEqual([
      { label: 'Truss', count: 3 },
      { label: 'arch', count: 1 },
    ]);
  });

  it.each([
    [[], undefined],
    [[3], 3],
    [[9, 1, 5], 5],
    [[4, 1, 3, 2], 2.5],
  ])('%j has the median %s', (values, median) => expect(medianOf(values)).toBe(median));

  it('is told to students without who it was, and not before the question is closed where it is hidden', () => {
    const state: PollState = { ...poll(), open: true, answered: 1, answers: [{ student: 'wren', value: 1 }] };
    expect(pollForStudents(state).answers).toBeNull();
    expect(pollForStudents({ ...state, open: false }).answers).toEqual([{ student: null, value: 1 }]);
    expect(pollForStudents({ ...state, hidden: false }).answers).toEqual([{ student: null, value: 1 }]);
    expect(POLL_KINDS).toHaveLength(5);
  });
});
