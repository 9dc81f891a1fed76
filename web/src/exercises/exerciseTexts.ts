import type { ExerciseKind, ExerciseWords, Level } from '@doodla/core/exercises';
import i18next from 'i18next';
import { t } from '../words';
import type { NotMadeCode } from './exercise.worker';

/** What a kind of exercise is called, what the class is told to do, how its list is written, and an example of one. */
export const KINDS = {
  order: ['exercises.order', 'exercises.orderTask', 'exercises.aLine', 'exercises.orderExample'],
  rank: ['exercises.rank', 'exercises.rankTask', 'exercises.aLine', 'exercises.rankExample'],
  events: ['exercises.events', 'exercises.eventsTask', 'exercises.eventsHow', 'exercises.eventsExample'],
  match: ['exercises.match', 'exercises.matchTask', 'exercises.pairsHow', 'exercises.matchExample'],
  groups: ['exercises.groups', 'exercises.groupsTask', 'exercises.groupsHow', 'exercises.groupsExample'],
  gaps: ['exercises.gaps', 'exercises.gapsTask', 'exercises.gapsHow', 'exercises.gapsExample'],
  label: ['exercises.label', 'exercises.labelTask', 'exercises.labelHow', 'exercises.labelExample'],
  trueFalse: [
    'exercises.trueFalse',
    'exercises.trueFalseTask',
    'exercises.trueFalseHow',
    'exercises.trueFalseExample',
  ],
  choice: ['exercises.choice', 'exercises.choiceTask', 'exercises.choiceHow', 'exercises.choiceExample'],
  pairs: ['exercises.pairs', 'exercises.pairsTask', 'exercises.pairsHow', 'exercises.pairsExample'],
  crossword: [
    'exercises.crossword',
    'exercises.crosswordTask',
    'exercises.crosswordHow',
    'exercises.crosswordExample',
  ],
  wordSearch: [
    'exercises.wordSearch',
    'exercises.wordSearchTask',
    'exercises.wordSearchHow',
    'exercises.wordSearchExample',
  ],
  numberLine: [
    'exercises.numberLine',
    'exercises.numberLineTask',
    'exercises.numberLineHow',
    'exercises.numberLineExample',
  ],
  spinner: ['exercises.spinner', 'none', 'exercises.aLine', 'exercises.spinnerExample'],
  dice: ['exercises.dice', 'none', 'exercises.noList', 'exercises.noList'],
  picker: ['exercises.picker', 'none', 'exercises.namesHow', 'exercises.pickerExample'],
  elements: ['exercises.elements', 'none', 'exercises.elementsHow', 'exercises.noList'],
  tangram: ['exercises.tangram', 'none', 'exercises.noList', 'exercises.noList'],
  patternBlocks: ['exercises.patternBlocks', 'none', 'exercises.noList', 'exercises.noList'],
  letterTiles: ['exercises.letterTiles', 'none', 'exercises.lettersHow', 'exercises.lettersExample'],
  players: ['exercises.players', 'none', 'exercises.teamsHow', 'exercises.scoreExample'],
  board: ['exercises.board', 'none', 'exercises.boardHow', 'exercises.boardExample'],
  voteBoard: ['exercises.voteBoard', 'exercises.voteTask', 'exercises.boardHow', 'exercises.boardExample'],
  map: ['exercises.map', 'none', 'exercises.mapHow', 'exercises.mapExample'],
  mapNames: ['exercises.mapNames', 'exercises.mapNamesTask', 'exercises.mapNamesHow', 'exercises.mapExample'],
  score: ['exercises.score', 'none', 'exercises.teamsHow', 'exercises.scoreExample'],
} as const satisfies Record<ExerciseKind, readonly [string, string, string, string]>;

/** What stands above an exercise, unless something else is typed. */
export function taskOf(kind: ExerciseKind): string {
  const [, task] = KINDS[kind];
  return task === 'none' ? '' : t(task);
}

const SENT = { easy: 'exercises.goesBack', medium: 'exercises.stays' } as const;
const HINTS = {
  order: SENT,
  events: SENT,
  match: SENT,
  groups: SENT,
  label: SENT,
  map: { easy: 'exercises.namesRead', medium: 'exercises.namesTapped', hard: 'exercises.noNames' },
  mapNames: SENT,
  numberLine: { ...SENT, hard: 'exercises.noPlaces' },
  gaps: { easy: 'exercises.gapsMoved', medium: 'exercises.gapsTyped', hard: 'exercises.gapsExact' },
  crossword: { easy: 'exercises.firstGiven', medium: 'exercises.allLetters' },
  wordSearch: { easy: 'exercises.twoWays', medium: 'exercises.slanted', hard: 'exercises.backwards' },
} as const;

/** What a level means for a kind. */
export function levelHint(kind: ExerciseKind, level: Level): string | undefined {
  const hints: Partial<Record<ExerciseKind, Partial<Record<Level, (typeof SENT)['easy']>>>> = HINTS as object;
  const hint = hints[kind]?.[level];
  return hint && t(hint);
}

export const LEVEL_NAMES = {
  easy: 'exercises.easy',
  medium: 'exercises.medium',
  hard: 'exercises.hard',
} as const satisfies Record<Level, string>;

const PROBLEMS = {
  'too-few': 'exercises.tooFew',
  'too-many': 'exercises.tooMany',
  'no-pair': 'exercises.noPair',
  'no-gap': 'exercises.noGap',
  'no-picture': 'exercises.noPicture',
  'no-number': 'exercises.noNumber',
  'no-truth': 'exercises.noTruth',
  'no-letters': 'exercises.noLetters',
  'too-long': 'exercises.tooLong',
  groups: 'exercises.noGroups',
  'no-room': 'exercises.noRoom',
  'no-country': 'exercises.noCountry',
  columns: 'exercises.noColumns',
  'no-atlas': 'exercises.noAtlas',
} as const satisfies Record<NotMadeCode, string>;

/** Why nothing can be made of a list, and what to do. */
export function sayProblem(code: NotMadeCode, values: Readonly<Record<string, string | number>>): string {
  const all = { least: 0, most: 0, line: '', text: '', ...values };
  return t(PROBLEMS[code], all);
}

/** The words that exercises have, in the language that is spoken here. */
export const exerciseWords = (): ExerciseWords => ({
  across: t('exercises.across'),
  down: t('exercises.down'),
  most: t('exercises.most'),
  least: t('exercises.least'),
  isTrue: t('exercises.isTrue'),
  isFalse: t('exercises.isFalse'),
  spin: t('exercises.spin'),
  roll: t('exercises.roll'),
  pick: t('exercises.pick'),
  language: i18next.language,
});
