import type { Check } from '../checks/fields.js';
import { hasExactly, hasOnly, isRecord } from '../checks/fields.js';
import { isHexColour } from '../colour/contrast.js';
import type { AnswerRule, TapStep } from '../marks/answerRule.js';
import {
  each,
  isCoordinate,
  isFlag,
  isId,
  isNumberIn,
  orNull,
  shaped,
  SHARED_OPTIONAL,
  some,
  textUpTo,
} from '../marks/fields.js';

export const MOST_STEPS = 12;
export const MOST_THINGS = 200;
/** Most letters of what is filled in, spoken or counted up. */
export const MOST_FILLED = 300;
export const MOST_ANSWERS = 20;
export const MOST_LINES = 60;

const ids = some(isId, MOST_THINGS);
const isText = textUpTo(MOST_FILLED, 1);
const isCount: Check = (value) => Number.isInteger(value) && isNumberIn(value, -1000, 1000);

const STEPS: Record<TapStep['do'], Record<string, Check>> = {
  show: { marks: ids },
  hide: { marks: ids },
  swap: { marks: ids },
  move: { marks: ids, dx: isCoordinate, dy: isCoordinate },
  colour: { marks: ids, colour: isHexColour },
  text: { mark: isId, text: isText },
  count: { mark: isId, by: isCount },
  speak: { text: textUpTo(MOST_FILLED, 1), language: textUpTo(35, 2) },
  page: { page: isId },
  play: { page: isId },
  tune: { notes: isText },
  pick: { sets: some(ids, MOST_THINGS), again: isFlag },
};

/** One of several shapes, told apart by what a field says. */
const byField =
  (field: string, shapes: Record<string, Record<string, Check>>): Check =>
  (value) => {
    if (!isRecord(value)) return false;
    const { [field]: which, ...rest } = value;
    return typeof which === 'string' && Object.hasOwn(shapes, which) && hasExactly(rest, shapes[which]!);
  };

const isMovement = byField('how', {
  freely: {},
  inside: { area: isId },
  along: { line: isId },
  turning: { x: isCoordinate, y: isCoordinate },
});

const isAccepted = byField('as', {
  words: { answers: each(textUpTo(MOST_FILLED, 1), MOST_ANSWERS), typos: isFlag },
  number: {
    value: (value) => isNumberIn(value, -1e15, 1e15),
    within: (value) => isNumberIn(value, 0, 1e15),
    unit: textUpTo(20),
  },
});

const TAP = { steps: each(byField('do', STEPS), MOST_STEPS), once: isFlag };

/** A tap does something, or chooses what is right or wrong. */
const isTap: Check = (value) => {
  if (!isRecord(value)) return false;
  const { is, ...rest } = value;
  const isWhole = hasExactly(rest, TAP);
  return (
    isWhole && (is === undefined ? (rest.steps as unknown[]).length > 0 : is === 'right' || is === 'wrong')
  );
};

const isPoint: Check = (value) => Array.isArray(value) && value.length === 2 && value.every(isCoordinate);

const TAKES = { things: each(isId, MOST_THINGS), sendsBack: isFlag, snaps: isFlag };

const isTaking: Check = (value) => {
  if (!isRecord(value)) return false;
  const { stack, ...rest } = value;
  return hasExactly(rest, TAKES) && (stack === undefined || stack === 'put' || stack === 'most');
};

const PARTS: Record<keyof AnswerRule, Check> = {
  tap: isTap,
  moves: shaped({ movement: isMovement, copies: isFlag }),
  takes: isTaking,
  fill: isAccepted,
  pair: shaped({ with: isId }),
  trace: shaped({
    lines: some(shaped({ from: isPoint, to: isPoint, marks: ids }), MOST_LINES),
    step: (value) => isNumberIn(value, 1, 1000),
  }),
  sets: some(textUpTo(40, 1), 20),
  of: some(isId, MOST_THINGS),
};

/** Whether a value from outside is a rule with at least one part, and all of it in range. */
export function isAnswerRule(value: unknown): value is AnswerRule {
  return isRecord(value) && Object.keys(value).length > 0 && hasOnly(value, PARTS);
}

const isTimes: Check = (value) => Number.isInteger(value) && isNumberIn(value, 0, 100_000);

/** No clock is later, milliseconds since 1970-01-01 UTC. */
const LAST_TIME = 1e14;

/** Whether a value from outside says what a mark stands for. */
export const isStandIn: Check = (value) => {
  if (!isRecord(value)) return false;
  const { copy, by, at, since, ...rest } = value;
  return (
    (since === undefined || isNumberIn(since, 0, LAST_TIME)) &&
    [by, at].every((id) => id === undefined || isId(id)) &&
    (copy === undefined || isFlag(copy)) &&
    hasExactly(rest, { for: isId, tries: isTimes, taps: isTimes })
  );
};

// A browser that only looks at a page has no need to look into its rules, which the server has done.
Object.assign(SHARED_OPTIONAL, { rule: orNull(isAnswerRule), standIn: isStandIn });
