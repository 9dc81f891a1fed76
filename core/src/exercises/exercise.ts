import type { Rect } from '../geometry/rect.js';
import { board, voteBoard } from './kinds/board.js';
import { choice, trueFalse } from './kinds/choice.js';
import { crossword } from './kinds/crossword.js';
import { dice, picker, score, spinner } from './kinds/chance.js';
import { gaps } from './kinds/gaps.js';
import { groups } from './kinds/groups.js';
import { label } from './kinds/label.js';
import { map, mapNames } from './kinds/maps.js';
import { match } from './kinds/match.js';
import { numberLine } from './kinds/numberLine.js';
import { events, order, rank } from './kinds/order.js';
import { elements, letterTiles, patternBlocks, players, tangram } from './kinds/pieces.js';
import { pairs } from './kinds/pairs.js';
import { wordSearch } from './kinds/wordSearch.js';
import type { ExerciseKind, ExerciseWords, Level, Making, MapOrder } from './making.js';
import type { ExerciseMark, Media } from './paper.js';
import { inset, Paper } from './paper.js';
import { seeded } from './seeded.js';

/** What an exercise is made of. */
export interface ExerciseOrder {
  kind: ExerciseKind;
  /** The list as it was typed or pasted. */
  text: string;
  /** What stands above it; may be empty. */
  title: string;
  level: Level;
  /** The same seed gives the same exercise. */
  seed: number;
  /** The page that it is for, page units. */
  area: Rect;
  media?: Media;
  /** How many dice there are. */
  count?: number;
  /** Where on the picture each word belongs, 0 to 1 each way; spread out where it is not said. */
  points?: readonly (readonly [number, number])[];
  /** Which map it is made on, where its kind needs one. */
  map?: MapOrder;
  words: ExerciseWords;
}

/** Part of a page that is left free all round. */
const MARGIN = 0.045;
/** Height of the line above against its letters. */
const TITLE = 2;

const MAKERS: Record<ExerciseKind, (making: Making) => void> = {
  order,
  rank,
  events,
  match,
  groups,
  gaps,
  label,
  trueFalse,
  choice,
  pairs,
  crossword,
  wordSearch,
  numberLine,
  spinner,
  dice,
  picker,
  score,
  elements,
  tangram,
  patternBlocks,
  letterTiles,
  players,
  board,
  voteBoard,
  map,
  mapNames,
};

/**
 * An exercise of ordinary marks with rules, lowest first.
 *
 * @throws ExerciseProblem where nothing can be made of the list.
 */
export function makeExercise({
  kind,
  text,
  title,
  level,
  seed,
  area,
  media,
  count = 1,
  points = [],
  words,
  map: onMap,
}: ExerciseOrder): ExerciseMark[] {
  const whole = inset(area, Math.min(area.width, area.height) * MARGIN);
  const paper = new Paper(whole, media);
  const taken = title.trim() === '' ? 0 : paper.size * TITLE;
  if (taken > 0)
    paper.words(
      title.trim(),
      { ...whole, height: taken * 0.85 },
      { bold: true, align: 'left', size: paper.size * 1.2 },
    );
  const room = { ...whole, y: whole.y + taken, height: whole.height - taken };
  MAKERS[kind]({ paper, room, text, level, chance: seeded(seed), count, points, words, map: onMap });
  return paper.marks;
}
