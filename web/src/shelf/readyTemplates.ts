import type { MarkBody, Rect, TemplateId, TemplateWords } from '@doodla/core';
import { TEMPLATES, templateOn } from '@doodla/core';
import { BLANK, makeExercise } from '@doodla/core/exercises';
import { exerciseWords } from '../exercises/exerciseTexts';
import { putExercise } from '../exercises/putExercise';
import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';
import { placeTemplate, templateWords } from './placeTemplate';

/** Templates with rules: boards in whose columns cards are laid. */
const BOARDS = ['board', 'voteBoard'] as const;
type BoardId = (typeof BOARDS)[number];

export type ReadyId = TemplateId | BoardId;
export const READY: readonly ReadyId[] = [...TEMPLATES, ...BOARDS];

const isBoard = (id: ReadyId): id is BoardId => (BOARDS as readonly string[]).includes(id);

const boardOn = (kind: BoardId, area: Rect, text: string = t('exercises.boardExample')) =>
  makeExercise({
    ...{ kind, text, title: '', level: 'medium', seed: 1, area },
    words: exerciseWords(),
  });

/** How many blank cards lie in each column at first. */
type Columns = readonly (readonly [name: string, blanks: number])[];

/** Templates whose columns can have cards that the class writes on and moves, and how they lie in these. */
const CARDED: Partial<Record<ReadyId, { kind: BoardId; columns(words: TemplateWords): Columns }>> = {
  ideas: {
    kind: 'voteBoard',
    columns: ({ ideas }) => [
      [ideas, 6],
      [t('templates.chosen'), 0],
    ],
  },
  knowWantLearned: {
    kind: 'board',
    columns: ({ know, want, learned }) => [know, want, learned].map((name) => [name, 3]),
  },
  twoColumns: {
    kind: 'voteBoard',
    columns: ({ forIt, againstIt }) => [forIt, againstIt].map((name) => [name, 4]),
  },
  weekPlan: {
    kind: 'board',
    columns: ({ days }) => [...days.map((day) => [day, 1] as const), [t('templates.toSort'), 4]],
  },
  lookingBack: {
    kind: 'voteBoard',
    columns: ({ wentWell, wasHard, surprised, nextTime }) =>
      [wentWell, wasHard, surprised, nextTime].map((name) => [name, 2]),
  },
  steps: {
    kind: 'board',
    columns: () => [
      [t('templates.toSort'), 5],
      [t('templates.steps'), 0],
    ],
  },
};

export const hasCards = (id: ReadyId): boolean => CARDED[id] !== undefined;

/** Heads and cards as the list of a board; what would end a head or begin a card is left out of names. */
const boardList = (columns: Columns) =>
  columns
    .map(
      ([name, blanks]) => `${name.replace(/[:\n]/g, ' ')}: ${Array<string>(blanks).fill(BLANK).join(', ')}`,
    )
    .join('\n');

/** What a template is drawn of on a page, lowest first. */
export const readyMarks = (id: ReadyId, area: Rect): readonly MarkBody[] =>
  isBoard(id) ? boardOn(id, area) : templateOn(id, area, templateWords());

/** Puts a template on the shown page, as one step. Returns the step; undefined where it may not be. */
export function placeReady(desk: PageDesk, id: ReadyId): string | undefined {
  return isBoard(id) ? placeBoard(desk, id) : placeTemplate(desk, id);
}

/** As `placeReady`, with blank cards. */
export function placeWithCards(desk: PageDesk, id: ReadyId): string | undefined {
  const carded = CARDED[id];
  return carded && placeBoard(desk, carded.kind, boardList(carded.columns(templateWords())));
}

function placeBoard(desk: PageDesk, kind: BoardId, text?: string): string | undefined {
  const { page } = desk;
  if (!page) return undefined;
  return putExercise(desk, boardOn(kind, desk.extentOf(page), text), { isNew: false, title: '' })?.step;
}
