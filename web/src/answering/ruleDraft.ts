import type { AnswerRule, Change, Mark, Movement, TapStep } from '@doodla/core';
import { centreOf, isFree, readQuantity } from '@doodla/core/answers';

/** How a class may move a mark, as it is chosen. */
export type MoveChoice = 'not' | Movement['how'];

/** A rule while it is being made: each part is kept, whether it counts or not. */
export interface RuleDraft {
  hidden: boolean;
  steps: TapStep[];
  once: boolean;
  /** Whether a tap chooses what is right, or what is wrong. */
  is: 'neither' | 'right' | 'wrong';
  moves: MoveChoice;
  /** The area, the line, or the mark about whose middle it turns. */
  held: string[];
  copies: boolean;
  isPlace: boolean;
  things: string[];
  sendsBack: boolean;
  /** How things lie in it: where they are put, in order, or one below the other. */
  lies: 'free' | 'snapped' | NonNullable<NonNullable<AnswerRule['takes']>['stack']>;
  fill: 'not' | 'words' | 'number' | 'anything';
  /** What is right, a line each; of numbers the first is read. */
  answers: string;
  typos: boolean;
  within: string;
  /** The other cover of a pair. */
  pair: string[];
  /** The marks that say what is asked. */
  of: string[];
  /** Lines that are found on it. */
  trace: AnswerRule['trace'] | undefined;
  /** What of a figure the class may set. */
  sets: string[];
}

/** Why a rule cannot be kept as it is. */
export type DraftProblem = 'nothing-chosen' | 'no-answer' | 'no-number' | 'no-held';

/** A mark's rule, to be changed. `page` has the marks that may stand for a point to turn about. */
export function draftOf(
  { rule, hidden = false }: Pick<Mark, 'rule' | 'hidden'>,
  page: readonly Mark[],
): RuleDraft {
  const { tap, moves, takes, fill, pair, of, trace, sets } = rule ?? {};
  const number = fill?.as === 'number' ? fill : undefined;
  return {
    hidden,
    steps: [...(tap?.steps ?? [])],
    once: tap?.once ?? false,
    is: tap?.is ?? 'neither',
    moves: moves?.movement.how ?? 'not',
    held: heldBy(moves?.movement, page),
    copies: moves?.copies ?? false,
    isPlace: takes !== undefined,
    things: [...(takes?.things ?? [])],
    sendsBack: takes?.sendsBack ?? true,
    lies: takes?.stack ?? (takes?.snaps === false ? 'free' : 'snapped'),
    fill: fill && isFree(fill) ? 'anything' : (fill?.as ?? 'not'),
    answers:
      fill?.as === 'words' ? fill.answers.join('\n') : number ? `${number.value} ${number.unit}`.trim() : '',
    typos: fill?.as === 'words' ? fill.typos : true,
    within: number ? String(number.within) : '0',
    pair: pair ? [pair.with] : [],
    of: [...(of ?? [])],
    trace,
    sets: [...(sets ?? [])],
  };
}

function heldBy(movement: Movement | undefined, page: readonly Mark[]): string[] {
  if (movement?.how === 'inside') return [movement.area];
  if (movement?.how === 'along') return [movement.line];
  if (movement?.how !== 'turning') return [];
  const isThere = (mark: Mark) => {
    const [x, y] = centreOf(mark);
    return Math.hypot(x - movement.x, y - movement.y) < 1;
  };
  const pivot = page.find(isThere);
  return pivot ? [pivot.id] : [];
}

/** What a draft comes to, or why it cannot be kept. */
export function ruleOf(draft: RuleDraft, page: readonly Mark[]): AnswerRule | null | DraftProblem {
  const parts = [tapOf(draft), movesOf(draft, page), takesOf(draft), fillOf(draft), restOf(draft)];
  const problem = parts.find((part) => typeof part === 'string');
  if (typeof problem === 'string') return problem;
  const rule = Object.assign({}, ...parts) as AnswerRule;
  const says = Object.keys(rule).filter((part) => part !== 'of');
  return says.length > 0 ? rule : null;
}

/** Draft parts that are as they are chosen. */
function restOf({ pair: [other], of, trace, sets }: RuleDraft): Part {
  return {
    ...(other !== undefined && { pair: { with: other } }),
    ...(of.length > 0 && { of }),
    ...(trace && { trace }),
    ...(sets.length > 0 && { sets }),
  };
}

type Part = Partial<AnswerRule> | DraftProblem;

function tapOf({ steps, once, is }: RuleDraft): Part {
  if (steps.length === 0 && is === 'neither') return {};
  const isWhole = (step: TapStep) =>
    'marks' in step
      ? step.marks.length > 0
      : 'mark' in step
        ? step.mark !== ''
        : step.do === 'pick'
          ? step.sets.length > 1
          : !('page' in step) || step.page !== '';
  const isSaid = (step: TapStep) =>
    step.do === 'tune' ? step.notes.trim() !== '' : !('text' in step) || step.text !== '';
  if (!steps.every((step) => isWhole(step) && isSaid(step))) return 'nothing-chosen';
  return { tap: { steps, once, ...(is !== 'neither' && { is }) } };
}

function movesOf({ moves, held: [held], copies }: RuleDraft, page: readonly Mark[]): Part {
  if (moves === 'not') return {};
  if (moves === 'freely') return { moves: { movement: { how: 'freely' }, copies } };
  const mark = page.find(({ id }) => id === held);
  if (!mark) return 'no-held';
  const [x, y] = centreOf(mark);
  const movement: Record<Exclude<MoveChoice, 'not' | 'freely'>, Movement> = {
    inside: { how: 'inside', area: mark.id },
    along: { how: 'along', line: mark.id },
    turning: { how: 'turning', x, y },
  };
  return { moves: { movement: movement[moves], copies } };
}

function takesOf({ isPlace, things, sendsBack, lies }: RuleDraft): Part {
  const stack = lies === 'put' || lies === 'most' ? { stack: lies } : {};
  return isPlace ? { takes: { things, sendsBack, snaps: lies !== 'free', ...stack } } : {};
}

function fillOf({ fill, answers, typos, within }: RuleDraft): Part {
  const lines = answers.split('\n').flatMap((line) => line.trim() || []);
  if (fill === 'not') return {};
  if (fill === 'anything') return { fill: { as: 'words', answers: [], typos: false } };
  if (lines.length === 0) return 'no-answer';
  if (fill === 'words') return { fill: { as: 'words', answers: lines, typos } };
  const read = readQuantity(lines[0]!);
  const off = readQuantity(within.trim() === '' ? '0' : within);
  if (!read || !off || off.value < 0) return 'no-number';
  return { fill: { as: 'number', value: read.value, within: off.value, unit: read.unit } };
}

/** What keeps a rule; things that belong somewhere and could not be moved so far, can be moved freely. */
export function keepingRule(
  mark: Mark,
  { rule, hidden }: { rule: AnswerRule | null; hidden: boolean },
  page: readonly Mark[],
): Change[] {
  const things = page.filter(
    ({ id, rule: own }) => rule?.takes?.things.includes(id) && !own?.moves && id !== mark.id,
  );
  return [
    { do: 'patch', mark: mark.id, set: { rule, hidden } },
    ...things.map(({ id, rule: own }): Change => ({
      do: 'patch',
      mark: id,
      set: { rule: { ...own, moves: { movement: { how: 'freely' }, copies: false } } },
    })),
  ];
}

/** A step of a kind with nothing chosen yet. */
export function newStep(kind: TapStep['do'], language: string): TapStep {
  const steps: { [Kind in TapStep['do']]: TapStep & { do: Kind } } = {
    show: { do: 'show', marks: [] },
    hide: { do: 'hide', marks: [] },
    swap: { do: 'swap', marks: [] },
    move: { do: 'move', marks: [], dx: 100, dy: 0 },
    colour: { do: 'colour', marks: [], colour: '#009e73' },
    text: { do: 'text', mark: '', text: '' },
    count: { do: 'count', mark: '', by: 1 },
    speak: { do: 'speak', text: '', language },
    page: { do: 'page', page: '' },
    play: { do: 'play', page: '' },
    tune: { do: 'tune', notes: '' },
    pick: { do: 'pick', sets: [], again: false },
  };
  return steps[kind];
}

/** Marks that were chosen to be picked from, those of one group together. */
export function setsOf(chosen: readonly string[], marks: readonly Mark[]): string[][] {
  const byId = new Map(marks.map((mark) => [mark.id, mark]));
  const sets = new Map<string, string[]>();
  for (const id of chosen) {
    const set = byId.get(id)?.group ?? id;
    sets.set(set, [...(sets.get(set) ?? []), id]);
  }
  return [...sets.values()];
}
