import { hasOnly, isRecord } from '../checks/fields.js';
import { isId } from '../marks/fields.js';
import type { Freedom } from '../marks/kind.js';
import { FREEDOMS } from '../marks/kind.js';

export const PEN_STATES = ['up', 'down'] as const;
export type PenState = (typeof PEN_STATES)[number];

export const VERDICTS = ['atOnce', 'later', 'shown'] as const;

/** What the teacher of a class lets its students do, beside writing at all. */
export interface Rules {
  /** What they may put on a page. */
  freedom: Freedom;
  /** Whether all may point; single ones may by `Scene.pointers`. */
  pointing: boolean;
  /** Whether they see what others of them write on the class's pages. */
  seeMarks: boolean;
  /** Whether they see what others of them are called. */
  seeNames: boolean;
  /** Whether they may take the marked-up pages with them. */
  handout: boolean;
  /** Whether they may play again what was done on the pages, as far as they may see it. */
  replay: boolean;
  /** Whether they may have rulers, compasses and the like of their own. */
  instruments: boolean;
  /** Students whose marks are hidden from everybody else. */
  hidden: readonly string[];
  /** Whether students may write to the class. */
  chat: boolean;
  /** Students who may not. */
  muted: readonly string[];
  /** Students who may write the class's notes with the teacher. */
  scribes: readonly string[];
  /** Whether it is said at once what is right of an answer, not yet, or by now of every answer. */
  verdicts: (typeof VERDICTS)[number];
}

export const RULES_AT_FIRST: Rules = {
  freedom: 'everything',
  pointing: false,
  seeMarks: true,
  seeNames: true,
  handout: false,
  replay: false,
  instruments: false,
  hidden: [],
  chat: true,
  muted: [],
  scribes: [],
  verdicts: 'atOnce',
};

/** Most students that are named at once. */
const MOST_NAMED = 200;

const isFlag = (value: unknown) => typeof value === 'boolean';
const areNamed = (value: unknown) =>
  Array.isArray(value) && value.length <= MOST_NAMED && value.every((id) => isId(id));

const RULES: Record<keyof Rules, (value: unknown) => boolean> = {
  freedom: (value) => FREEDOMS.includes(value as Freedom),
  pointing: isFlag,
  seeMarks: isFlag,
  seeNames: isFlag,
  handout: isFlag,
  replay: isFlag,
  instruments: isFlag,
  hidden: areNamed,
  chat: isFlag,
  muted: areNamed,
  scribes: areNamed,
  verdicts: (value) => VERDICTS.includes(value as Rules['verdicts']),
};

/** Whether a value from outside changes only what there is in the rules of a class. */
export function isRulesPart(value: unknown): value is Partial<Rules> {
  return hasOnly(value, RULES);
}

/** Whether a value from outside says of some students whether their pens are up. */
export function arePens(value: unknown): value is Record<string, PenState> {
  if (!isRecord(value)) return false;
  const pens = Object.entries(value);
  return (
    pens.length <= MOST_NAMED && pens.every(([id, pen]) => isId(id) && PEN_STATES.includes(pen as PenState))
  );
}
