import { hasExactly } from '../checks/fields.js';
import { isId } from '../marks/fields.js';

/** What is asked for: one of two, of some letters, of answers of one's own, a number, or a few words. */
export const POLL_KINDS = ['yes-no', 'letters', 'answers', 'number', 'words'] as const;
export type PollKind = (typeof POLL_KINDS)[number];

/** A question to the whole class. */
export interface Poll {
  id: string;
  kind: PollKind;
  /** What is asked; may be empty where it is said aloud. */
  question: string;
  /** What one chooses from; empty for numbers and words. Letters and yes or no are shown by their place. */
  options: readonly string[];
  /** Whether nobody is told who has answered what, the teacher neither. */
  anonymous: boolean;
  /** Whether students see no results while it is open. */
  hidden: boolean;
}

/** The place of an option from 0, a number, or words. */
export type PollValue = number | string;

export interface PollAnswer {
  /** Whose it is; null where that is not told. */
  student: string | null;
  value: PollValue;
}

/** A poll as it stands. */
export interface PollState extends Poll {
  open: boolean;
  /** How many have answered. */
  answered: number;
  /** Null where they are not to be seen yet. */
  answers: readonly PollAnswer[] | null;
}

export const REACTIONS = ['clear', 'lost'] as const;
export type Reaction = (typeof REACTIONS)[number];

export const POLL_LIMITS = { question: 300, option: 120, options: 8, words: 200, number: 1e12 } as const;

const isFlag = (value: unknown) => typeof value === 'boolean';
const isText = (most: number) => (value: unknown) => typeof value === 'string' && value.length <= most;
const hasOptions = (kind: PollKind) => kind !== 'number' && kind !== 'words';

/** Whether a value from outside is a poll that can be asked. */
export function isPoll(value: unknown): value is Poll {
  const shape = {
    id: isId,
    kind: (kind: unknown) => POLL_KINDS.includes(kind as PollKind),
    question: isText(POLL_LIMITS.question),
    options: (options: unknown) =>
      Array.isArray(options) &&
      options.length <= POLL_LIMITS.options &&
      options.every(isText(POLL_LIMITS.option)),
    anonymous: isFlag,
    hidden: isFlag,
  };
  if (!hasExactly(value, shape)) return false;
  const { kind, options } = value as Poll;
  if (!hasOptions(kind)) return options.length === 0;
  return kind === 'yes-no'
    ? options.length === 2
    : options.length >= 2 && (kind === 'letters' || areTold(options));
}

/** Answers of one's own are all said, none of them twice. */
function areTold(options: readonly string[]): boolean {
  const said = options.map((option) => option.trim().toLowerCase());
  return said.every(Boolean) && new Set(said).size === said.length;
}

/** Whether a value from outside answers a poll. */
export function isAnswerTo({ kind, options }: Poll, value: unknown): value is PollValue {
  if (kind === 'words')
    return typeof value === 'string' && value.trim() !== '' && value.length <= POLL_LIMITS.words;
  if (typeof value !== 'number' || !Number.isFinite(value)) return false;
  if (kind === 'number') return Math.abs(value) <= POLL_LIMITS.number;
  return Number.isInteger(value) && value >= 0 && value < options.length;
}

export interface Bar {
  label: string;
  count: number;
}

/**
 * How often each option was chosen; of numbers how often each was given, or, where there are more than twelve of them, how many
 * lie in each class, with as many classes as Sturges has it ("The Choice of a Class Interval", 1926); of words
 * how often the same was written, most first.
 */
export function barsOf({ kind, options }: Poll, answers: readonly PollAnswer[]): Bar[] {
  if (kind === 'words') return wordBars(answers.map(({ value }) => String(value)));
  const values = answers.map(({ value }) => Number(value));
  if (kind === 'number') return numberBars(values);
  return options.map((label, i) => ({ label, count: values.filter((value) => value === i).length }));
}

const MOST_SINGLE = 12;

function numberBars(values: readonly number[]): Bar[] {
  const sorted = [...values].sort((a, b) => a - b);
  const single = [...new Set(sorted)];
  if (single.length <= MOST_SINGLE)
    return single.map((value) => ({
      label: String(value),
      count: sorted.filter((other) => other === value).length,
    }));
  const [least, most] = [sorted[0]!, sorted.at(-1)!];
  const classes = Math.ceil(Math.log2(sorted.length)) + 1;
  const width = (most - least) / classes;
  const placeOf = (value: number) => Math.min(classes - 1, Math.floor((value - least) / width));
  const round = (value: number) => Number(value.toPrecision(3));
  return Array.from({ length: classes }, (_, i) => ({
    label: `${round(least + i * width)} – ${round(least + (i + 1) * width)}`,
    count: sorted.filter((value) => placeOf(value) === i).length,
  }));
}

function wordBars(words: readonly string[]): Bar[] {
  const bars = new Map<string, Bar>();
  for (const word of words.map((one) => one.trim())) {
    const bar = bars.get(word.toLowerCase()) ?? { label: word, count: 0 };
    bar.count += 1;
    bars.set(word.toLowerCase(), bar);
  }
  return [...bars.values()].sort((a, b) => b.count - a.count);
}

/** The middle one of some numbers, or the mean of the middle two; undefined of none. */
export function medianOf(values: readonly number[]): number | undefined {
  const sorted = [...values].sort((a, b) => a - b);
  const half = sorted.length / 2;
  if (sorted.length === 0) return undefined;
  return Number.isInteger(half) ? (sorted[half - 1]! + sorted[half]!) / 2 : sorted[Math.floor(half)]!;
}

/** Whether a value from outside is a reaction. */
export function isReaction(value: unknown): value is Reaction {
  return REACTIONS.includes(value as Reaction);
}

/** A poll as students are told of it: never who has answered what, and results only where they are not hidden. */
export function pollForStudents(poll: PollState): PollState {
  const answers = poll.hidden && poll.open ? null : poll.answers;
  return { ...poll, answers: answers && answers.map(({ value }) => ({ student: null, value })) };
}

/** Whether a value from outside could be an answer to some poll. */
export function mayAnswer(value: unknown): value is PollValue {
  return typeof value === 'number' || typeof value === 'string';
}
