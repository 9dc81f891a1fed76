import type { Mark } from '@doodla/core';
import { markBounds } from '@doodla/core';
import { isFree } from '@doodla/core/answers';

/** Which way words go over fields of one letter. */
export type Way = 'across' | 'down';

/** So far apart fields may lie to be of one word, of their width or height. */
const BESIDE = 1.5;

/** Whether one letter is filled in here, as in words that cross. */
export function isCell({ rule }: Pick<Mark, 'rule'>): boolean {
  if (rule?.fill?.as !== 'words' || isFree(rule.fill)) return false;
  return rule.fill.answers.every((answer) => [...answer].length === 1);
}

/** The field beside one, `by` 1 after it and -1 before it. */
export function cellBeside(cells: readonly Mark[], cell: Mark, way: Way, by: 1 | -1): Mark | undefined {
  const { x, y, width, height } = markBounds(cell);
  return cells.find((other) => {
    const at = markBounds(other);
    const along = way === 'across' ? (at.x - x) / width : (at.y - y) / height;
    const off = way === 'across' ? Math.abs(at.y - y) / height : Math.abs(at.x - x) / width;
    return along * by > 0.5 && along * by < BESIDE && off < 0.5;
  });
}

/** Which way goes on from a field: as before where there is something, else the other way. */
export function wayFrom(cells: readonly Mark[], cell: Mark, before: Way): Way {
  const other = before === 'across' ? 'down' : 'across';
  const goesOn = (way: Way) => ([1, -1] as const).some((by) => cellBeside(cells, cell, way, by));
  return goesOn(before) || !goesOn(other) ? before : other;
}
