import { isRecord } from '../checks/fields.js';
import type { AnswerRule, TapStep } from '../marks/answerRule.js';
import type { Mark, MarkPatch } from '../marks/mark.js';
import { standInId, stoodFor } from '../marks/standIn.js';
import type { Change, Operation } from '../ops/operation.js';
import type { Actor } from '../ops/permit.js';
import type { RefusalCode } from '../ops/refusal.js';
import { colourSet } from './answering.js';
import type { MarkFinder } from './movements.js';
import { isMovement, isShifted, placeFields, transformed } from './movements.js';
import { centreOf, liesIn } from './places.js';
import { MOST_FILLED } from './ruleCheck.js';

/** Whether a change may be about rules or answers, which have to be judged beside what is judged of all changes. */
export function isAnswering(change: Change): boolean {
  if (change.do === 'patch') return setsRules(change.set) || stoodFor(change.mark) !== undefined;
  return change.do === 'add' && isOfRules(change.mark);
}

const setsRules = (set: MarkPatch) => 'rule' in set || 'hidden' in set;
const isOfRules = ({ rule, hidden, standIn }: Mark) =>
  rule !== undefined || hidden !== undefined || standIn !== undefined;

/**
 * Whether what somebody has answered is what the rules of the page let them: undefined if so, else the reason. `find` knows
 * the marks of the class and those prepared for it, as they are before.
 */
export function answerRefusal(operation: Operation, actor: Actor, find: MarkFinder): RefusalCode | undefined {
  if (operation.undoes !== undefined) return undefined;
  for (const change of operation.changes) {
    if (!isAnswering(change)) continue;
    const reason =
      change.do === 'add' ? addRefusal(change.mark, actor, find) : patchRefusal(change, actor, find);
    if (reason) return reason;
  }
  return undefined;
}

/** Only a teacher makes rules; what stands for a mark is put anew, and only a teacher moves it like any mark. */
function patchRefusal(change: Change, { role }: Actor, find: MarkFinder): RefusalCode | undefined {
  if (change.do !== 'patch') return undefined;
  const isStandIn = find(change.mark)?.standIn !== undefined;
  const isRefused = setsRules(change.set) ? isStandIn || role === 'student' : isStandIn && role === 'student';
  return isRefused ? 'not-allowed' : undefined;
}

function addRefusal(mark: Mark, { role }: Actor, find: MarkFinder): RefusalCode | undefined {
  const { standIn } = mark;
  if (!standIn) return role === 'teacher' ? undefined : 'not-allowed';
  const original = find(standIn.for);
  if (!original || original.standIn || original.kind !== mark.kind || original.page !== mark.page)
    return 'no-such-mark';
  const before = find(mark.id);
  const isItsId = standIn.copy
    ? before === undefined || before.standIn?.copy === true
    : mark.id === standInId(original.id, mark.space);
  if (!isItsId || (before && before.standIn?.for !== original.id)) return 'bad-mark';
  if (mark.rule !== undefined || mark.locked) return 'bad-mark';
  return isAllowed(mark, original, before ?? find(standInId(original.id, 'class')), find)
    ? undefined
    : 'not-allowed';
}

/** Whether all that is another of a mark is so by a rule. */
function isAllowed(mark: Mark, original: Mark, before: Mark | undefined, find: MarkFinder): boolean {
  const { copy, by, at, tries, taps } = mark.standIn!;
  const known = before?.standIn ?? { tries: 0, taps: 0 };
  const cause = by === undefined ? original : find(by);
  const rule = cause?.rule;
  if (!rule || ![0, 1].includes(tries - known.tries) || ![0, 1].includes(taps - known.taps)) return false;
  if (copy && !rule.moves?.copies) return false;
  const isOwn = by === undefined;
  const steps = stepsOf(rule).filter((step) => concerns(step, original.id));
  const turns = rule.pair !== undefined && original.rule?.pair !== undefined;
  const moves = isOwn || (cause.group !== null && cause.group === original.group) ? rule.moves : undefined;
  const isByItself = isOwn && (rule.fill ?? rule.tap ?? rule.trace ?? rule.sets) !== undefined;
  // Of a group of which one is tapped the others are put over it again, as they are.
  const isRaised = rule.tap !== undefined && original.group !== null;
  if (!moves && !turns && steps.length === 0 && !isByItself && !isRaised) return false;
  const fields = placeFields(original);
  const isThere = [original, before].some((one) => one && isSame(mark, one, fields));
  const isMoved =
    (moves !== undefined && isPlaced(mark, original, moves.movement, at, find)) ||
    steps.some((step) => step.do === 'move' && isSame(mark, transformed(original, moveOf(step)), fields));
  const does = turns ? [...steps, ...TURNS] : steps;
  return (isThere || isMoved) && areOthersAllowed(mark, [original, before], does, isOwn ? rule : {}, fields);
}

/** All that a rule does to other marks; what is found by a line is shown. */
const stepsOf = ({ tap, trace }: AnswerRule): TapStep[] => [
  ...(tap?.steps ?? []),
  ...(trace?.lines ?? []).map(({ marks }) => ({ do: 'show', marks }) as const),
];
/** What covers of pairs may do to one another. */
const TURNS: readonly TapStep[] = [{ do: 'swap', marks: [] }];

function concerns(step: TapStep, id: string): boolean {
  if (step.do === 'pick') return step.sets.some((set) => set.includes(id));
  return 'marks' in step ? step.marks.includes(id) : 'mark' in step && step.mark === id;
}
const moveOf = ({ dx, dy }: TapStep & { do: 'move' }) => ({ kind: 'move', dx, dy }) as const;

/** Whether a thing lies where its movement lets it, or in a place. */
function isPlaced(
  mark: Mark,
  original: Mark,
  movement: NonNullable<AnswerRule['moves']>['movement'],
  at: string | undefined,
  find: MarkFinder,
): boolean {
  const seen = (id: string) => find(standInId(id, mark.space)) ?? find(standInId(id, 'class')) ?? find(id);
  if (isMovement(original, mark, movement, seen)) return true;
  const place = at === undefined || !find(at)?.rule?.takes ? undefined : seen(at);
  return place !== undefined && isShifted(original, mark) && liesIn(centreOf(mark), place);
}

/** Fields that every stand-in has of its own, or that say nothing of what it shows. */
const OWN = [
  'id',
  'space',
  'author',
  'order',
  'locked',
  'group',
  'createdAt',
  'standIn',
  'rule',
  'credit',
  'pane',
];

/** Whether the fields that do not say where a mark lies are as they were, or as a rule makes them. */
function areOthersAllowed(
  mark: Mark,
  befores: readonly (Mark | undefined)[],
  steps: readonly TapStep[],
  own: AnswerRule,
  places: ReadonlySet<string>,
): boolean {
  const fields = new Set([mark, ...befores].flatMap((one) => Object.keys(one ?? {})));
  return [...fields]
    .filter((field) => !OWN.includes(field) && !places.has(field))
    .every(
      (field) =>
        befores.some((one) => one && isSame(mark, one, [field])) || isMade(mark, field, befores, steps, own),
    );
}

/** What of a figure follows from what is set of it. */
const LOOK_OF_FIGURES: ReadonlySet<string> = new Set(['recipe', 'drawing', 'alt']);

/** Whether a figure is the one that it was, but for what may be set of it. */
function isSetting(mark: Mark, original: Mark | undefined, sets: readonly string[]): boolean {
  if (mark.kind !== 'plot' || original?.kind !== 'plot') return false;
  const [now, before] = [valuesOf(mark.recipe), valuesOf(original.recipe)];
  if (!now || !before || now.figure !== before.figure) return false;
  const keys = new Set([...Object.keys(now.values), ...Object.keys(before.values)]);
  return [...keys].every((key) => sets.includes(key) || now.values[key] === before.values[key]);
}

function valuesOf(recipe: string): { figure: unknown; values: Record<string, unknown> } | undefined {
  try {
    const { figure, values } = JSON.parse(recipe) as Record<string, unknown>;
    return typeof figure === 'string' && isRecord(values) ? { figure, values } : undefined;
  } catch {
    // No JSON is no figure.
    return undefined;
  }
}

/** Steps that both show and hide. */
const EITHER: ReadonlySet<TapStep['do']> = new Set(['swap', 'pick']);

function isMade(
  mark: Mark,
  field: string,
  befores: readonly (Mark | undefined)[],
  steps: readonly TapStep[],
  { fill, sets }: AnswerRule,
): boolean {
  if (sets && LOOK_OF_FIGURES.has(field)) return isSetting(mark, befores[0], sets);
  if (field === 'hidden')
    return steps.some(({ do: step }) => EITHER.has(step) || step === (mark.hidden ? 'hide' : 'show'));
  if (field === 'style')
    return steps.some(
      (step) => step.do === 'colour' && befores.some((one) => one && isColoured(mark, one, step.colour)),
    );
  if (field === 'parts') return 'parts' in mark && mark.parts?.length === 0;
  if (field !== 'text' || !('text' in mark)) return false;
  if (fill && mark.text.length <= MOST_FILLED) return true;
  return steps.some(
    (step) =>
      (step.do === 'text' && step.text === mark.text) ||
      (step.do === 'count' && /^-?\d{1,9}$/.test(mark.text)),
  );
}

function isColoured(mark: Mark, before: Mark, colour: string): boolean {
  return isSame({ style: { ...before.style, ...colourSet(before, colour).style } }, mark, ['style']);
}

function isSame(a: object, b: object, fields: Iterable<string>): boolean {
  const [one, other] = [a, b] as Record<string, unknown>[];
  return [...fields].every(
    (field) => JSON.stringify(plain(one![field])) === JSON.stringify(plain(other![field])),
  );
}

/** What is not there is as if it were nothing; the order of a style's fields says nothing. */
function plain(value: unknown): unknown {
  if (value === undefined || value === false || (Array.isArray(value) && value.length === 0)) return null;
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return value;
  return Object.fromEntries(Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1)));
}
