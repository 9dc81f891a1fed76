import { hasExactly, isRecord } from '../checks/fields.js';
import type { Rect } from '../geometry/rect.js';
import { isId, isSpace } from '../marks/fields.js';
import type { Space } from '../marks/shared.js';
import { standInId } from '../marks/standIn.js';
import type { Change } from '../ops/operation.js';
import type { Actor } from '../ops/permit.js';

/**
 * How a page is handed to a class: all work on it together, each on a copy of their own, each table on one, or each table on
 * one that is cut into fields, one for each student.
 */
export const WAYS = ['class', 'own', 'tables', 'fields'] as const;
export type Way = (typeof WAYS)[number];

/** Pages that are not worked on together, by id. */
export type Ways = Readonly<Record<string, Exclude<Way, 'class'>>>;

/** A group of students that shares a page. */
export interface StudentTable {
  id: string;
  students: readonly string[];
}

/** A student's or table's copy of a page, shown to the whole class. */
export interface ShownCopy {
  page: string;
  space: Space;
  /** Whether it is said whose it is. */
  named: boolean;
}

const MOST_TABLES = 100;
const MOST_STUDENTS = 200;
const MOST_WAYS = 5000;

/** How many students at most share one screen, each on a copy of their own. */
export const MOST_SEATS = 4;

/** The space of the n-th of the students who share a screen, from 1; it is the teacher's, whose screen it is. */
export const seatSpace = (seat: number): Space => `table:seat-${seat}`;

/** Which of the students who share a screen a space is of, if it is of one. */
export function seatOf(space: Space): number | undefined {
  const found = /^table:seat-(\d)$/.exec(space);
  return found ? Number(found[1]) : undefined;
}

/** The space in which somebody works on a page: a teacher, and who has no table, with the class. */
export function spaceOn(way: Way | undefined, { id, role, tables }: Actor): Space {
  if (role === 'teacher' || way === undefined || way === 'class') return 'class';
  if (way === 'own') return `student:${id}`;
  return tables[0] === undefined ? 'class' : `table:${tables[0]}`;
}

/**
 * What a student puts on a page that has been handed out as copies since goes to their copy, so that nothing is lost.
 * The other way round it stays where it is: what was written for oneself is not shown to all.
 */
export function placedBy(actor: Actor, change: Change, ways: Ways): Change {
  if (change.do !== 'add' || actor.role === 'teacher' || change.mark.space !== 'class') return change;
  const space = spaceOn(ways[change.mark.page], actor);
  if (space === 'class') return change;
  const { mark } = change;
  const id = mark.standIn && !mark.standIn.copy ? standInId(mark.standIn.for, space) : mark.id;
  return { ...change, mark: { ...mark, id, space } };
}

/**
 * Students in tables of about so many, or in so many tables, in the order given; sizes differ by one at most. Teams of four
 * are usual (common practice, no source).
 */
export function makeTables(
  students: readonly string[],
  by: { size: number } | { count: number },
): StudentTable[] {
  if (students.length === 0) return [];
  const wanted = 'count' in by ? by.count : Math.ceil(students.length / Math.max(1, by.size));
  const count = Math.min(Math.max(1, Math.floor(wanted)), students.length, MOST_TABLES);
  return Array.from({ length: count }, (_, i) => {
    const [from, to] = [i, i + 1].map((n) => Math.round((n * students.length) / count));
    return { id: String(i + 1), students: students.slice(from, to) };
  });
}

/** Students in an order of chance (Fisher and Yates, as Durstenfeld has it; Knuth, TAOCP 2, 3.4.2 P). */
export function shuffled<T>(list: readonly T[], random: () => number = Math.random): T[] {
  const all = [...list];
  for (let i = all.length - 1; i > 0; i -= 1) {
    const j = Math.floor(random() * (i + 1));
    [all[i], all[j]] = [all[j]!, all[i]!];
  }
  return all;
}

/** The tables with a student at another one; those that are empty then stay. */
export function seatedAt(tables: readonly StudentTable[], student: string, table: string): StudentTable[] {
  return tables.map(({ id, students }) => {
    const others = students.filter((other) => other !== student);
    return { id, students: id === table ? [...others, student] : others };
  });
}

/**
 * A page cut into so many fields, row by row, as near to squares as rows allow. They cover it, and none lies over another.
 * Page units.
 */
export function fieldsOf({ x, y, width, height }: Rect, count: number): Rect[] {
  if (count <= 0) return [];
  const rows = Math.min(count, Math.max(1, Math.round(Math.sqrt((count * height) / width))));
  const inRow = Array.from(
    { length: rows },
    (_, row) => Math.floor(((row + 1) * count) / rows) - Math.floor((row * count) / rows),
  );
  return inRow.flatMap((columns, row) =>
    Array.from({ length: columns }, (_, column) => ({
      x: x + (column * width) / columns,
      y: y + (row * height) / rows,
      width: width / columns,
      height: height / rows,
    })),
  );
}

/** Whether a value from outside is a list of tables at which nobody sits twice. */
export function areTables(value: unknown): value is StudentTable[] {
  if (!Array.isArray(value) || value.length > MOST_TABLES) return false;
  const isTable = (table: unknown) => hasExactly(table, { id: isId, students: isIdList });
  if (!value.every(isTable)) return false;
  const tables = value as StudentTable[];
  const seated = tables.flatMap(({ students }) => students);
  return isSet(seated) && isSet(tables.map(({ id }) => id));
}

/** Whether a value from outside says of some pages how they are handed out. */
export function areWays(value: unknown): value is Record<string, Way> {
  if (!isRecord(value)) return false;
  const ways = Object.entries(value);
  return ways.length <= MOST_WAYS && ways.every(([page, way]) => isId(page) && WAYS.includes(way as Way));
}

/** Whether a value from outside says which copy is shown. */
export function isShownCopy(value: unknown): value is ShownCopy {
  return hasExactly(value, { page: isId, space: isSpace, named: (named) => typeof named === 'boolean' });
}

const isSet = (ids: readonly string[]) => new Set(ids).size === ids.length;
const isIdList = (value: unknown) =>
  Array.isArray(value) && value.length <= MOST_STUDENTS && value.every((id) => isId(id));
