import type { MarkBody, Rect, TemplateId } from '@doodla/core';
import { TEMPLATES, templateOn } from '@doodla/core';
import { makeExercise } from '@doodla/core/exercises';
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

const boardOn = (kind: BoardId, area: Rect) =>
  makeExercise({
    ...{ kind, text: t('exercises.boardExample'), title: '', level: 'medium', seed: 1, area },
    words: exerciseWords(),
  });

/** What a template is drawn of on a page, lowest first. */
export const readyMarks = (id: ReadyId, area: Rect): readonly MarkBody[] =>
  isBoard(id) ? boardOn(id, area) : templateOn(id, area, templateWords());

/** Puts a template on the shown page, as one step. Returns the step; undefined where it may not be. */
export function placeReady(desk: PageDesk, id: ReadyId): string | undefined {
  if (!isBoard(id)) return placeTemplate(desk, id);
  const { page } = desk;
  if (!page) return undefined;
  return putExercise(desk, boardOn(id, desk.extentOf(page)), { isNew: false, title: '' })?.step;
}
