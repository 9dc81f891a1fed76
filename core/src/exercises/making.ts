import type { Rect } from '../geometry/rect.js';
import type { Atlas, MapView } from '../maps/index.js';
import type { AnswerRule } from '../marks/answerRule.js';
import type { Paper } from './paper.js';
import { ExerciseProblem } from './problem.js';

export const EXERCISE_KINDS = [
  'order',
  'rank',
  'events',
  'match',
  'groups',
  'gaps',
  'label',
  'trueFalse',
  'choice',
  'pairs',
  'crossword',
  'wordSearch',
  'numberLine',
  'spinner',
  'dice',
  'picker',
  'score',
  'elements',
  'tangram',
  'patternBlocks',
  'letterTiles',
  'players',
  'board',
  'voteBoard',
  'map',
  'mapNames',
] as const;
export type ExerciseKind = (typeof EXERCISE_KINDS)[number];

export const LEVELS = ['easy', 'medium', 'hard'] as const;
export type Level = (typeof LEVELS)[number];

/** Kinds that are made without a list. */
export const LISTLESS: readonly ExerciseKind[] = [
  'dice',
  'elements',
  'tangram',
  'patternBlocks',
  'players',
  'map',
  'mapNames',
];
/** Kinds that are made on a map. */
export const MAPPED: readonly ExerciseKind[] = ['map', 'mapNames'];
/** Of which there are so many, and how many at most. */
export const COUNTED: Partial<Record<ExerciseKind, number>> = { dice: 5, players: 15 };

/** Which levels a kind has; none where it is neither easy nor hard. */
export const LEVELS_OF: Readonly<Record<ExerciseKind, readonly Level[]>> = {
  order: ['easy', 'medium'],
  rank: [],
  events: ['easy', 'medium'],
  match: ['easy', 'medium'],
  groups: ['easy', 'medium'],
  gaps: ['easy', 'medium', 'hard'],
  label: ['easy', 'medium'],
  trueFalse: [],
  choice: [],
  pairs: [],
  crossword: ['easy', 'medium'],
  wordSearch: ['easy', 'medium', 'hard'],
  numberLine: ['easy', 'medium', 'hard'],
  spinner: [],
  dice: [],
  picker: [],
  score: [],
  elements: [],
  tangram: [],
  patternBlocks: [],
  letterTiles: [],
  players: [],
  board: [],
  voteBoard: [],
  map: ['easy', 'medium', 'hard'],
  mapNames: ['easy', 'medium'],
};

/** The words that exercises have, in the language of whoever makes them. */
export interface ExerciseWords {
  across: string;
  down: string;
  most: string;
  least: string;
  isTrue: string;
  isFalse: string;
  spin: string;
  roll: string;
  pick: string;
  /** The language itself, a BCP 47 tag. */
  language: string;
}

/** A map that an exercise is made on. */
export interface MapOrder {
  view: MapView;
  atlas: Atlas;
}

/** What a kind of exercise is made with. */
export interface Making {
  paper: Paper;
  /** Where it goes. */
  room: Rect;
  text: string;
  level: Level;
  chance(): number;
  count: number;
  points: readonly (readonly [number, number])[];
  words: ExerciseWords;
  map: MapOrder | undefined;
}

/** Throws ExerciseProblem where there are fewer or more than can be. */
export function checkCount(count: number, least: number, most: number): void {
  if (count < least) throw new ExerciseProblem('too-few', { least });
  if (count > most) throw new ExerciseProblem('too-many', { most });
}

/** What the class moves wherever it likes. */
export const MOVES: AnswerRule = { moves: { movement: { how: 'freely' }, copies: false } };

/** A place for things; at the easiest what is wrong goes back. */
export const taking = (things: readonly string[], level: Level): AnswerRule => ({
  takes: { things, sendsBack: level === 'easy', snaps: true },
});

/** Indexes of items that are the same as one, itself among them. */
export function likeItem(items: readonly string[], at: number): number[] {
  return items.flatMap((item, i) => (item === items[at] ? [i] : []));
}
