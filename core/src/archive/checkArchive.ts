import '../answers/ruleCheck.js';
import type { Check, Checks } from '../checks/fields.js';
import { hasExactly, isRecord } from '../checks/fields.js';
import { isHexColour } from '../colour/contrast.js';
import { isIdeaRules } from '../ideas/ideaRules.js';
import { WAYS } from '../live/copies.js';
import { isAnswerTo, isPoll } from '../live/poll.js';
import { isRulesPart } from '../live/rules.js';
import { isMark } from '../marks/check.js';
import { isId, isNumberIn, orNull, textUpTo } from '../marks/fields.js';
import { isPage } from '../pages/check.js';
import type { ArchivedPage, ArchiveHead } from './lessonArchive.js';
import { ARCHIVE, UnreadableArchive } from './lessonArchive.js';

/** What becomes of an archive of a version, so that it is one of the next. */
export type Migrations = Readonly<Record<number, (old: Record<string, unknown>) => Record<string, unknown>>>;

/** None yet: there has been one version. */
const MIGRATIONS: Migrations = {};

const MOST = { pages: 5000, classes: 1000, files: 20_000, students: 500, sayings: 5000, rows: 50_000 };
const isTime: Check = (value) => isNumberIn(value, 0, Number.MAX_SAFE_INTEGER);
const isCount: Check = (value) => Number.isInteger(value) && isNumberIn(value, 0, 1e6);
/** A path within the archive: plain names, none of which leads out of it. */
const isPath: Check = (value) =>
  typeof value === 'string' && /^[\w-]+(\/[\w-]+)*\.[a-z0-9]+$/.test(value) && value.length < 200;
const isHash: Check = (value) => typeof value === 'string' && /^[0-9a-f]{64}$/.test(value);

const listOf =
  (check: Check, most: number): Check =>
  (value) =>
    Array.isArray(value) && value.length <= most && value.every(check);
const rowOf =
  (checks: Checks): Check =>
  (value) =>
    hasExactly(value, checks);
const byId =
  (check: Check): Check =>
  (value) =>
    isRecord(value) &&
    Object.keys(value).length <= MOST.pages &&
    Object.entries(value).every(([key, each]) => isId(key) && check(each));

const isStudent = rowOf({
  id: isId,
  name: textUpTo(200),
  colour: isHexColour,
  seat: isCount,
  joinedAt: isTime,
});
const isSaying = rowOf({ author: isId, name: orNull(textUpTo(200)), words: textUpTo(2000), at: isTime });
const isAsked: Check = (value) => {
  const shape = {
    poll: isPoll,
    askedAt: isTime,
    closedAt: orNull(isTime),
    answers: listOf(rowOf({ student: isId, value: () => true, at: isTime }), MOST.rows),
  };
  if (!hasExactly(value, shape)) return false;
  const { poll, answers } = value as ArchiveHead['classes'][number]['polls'][number];
  return answers.every(({ value: answer }) => isAnswerTo(poll, answer));
};
const isClass = rowOf({
  id: isId,
  title: textUpTo(200),
  openedAt: isTime,
  endedAt: orNull(isTime),
  page: isId,
  rules: orNull(isRulesPart),
  ways: orNull(byId((way) => WAYS.includes(way as never) && way !== 'class')),
  tables: orNull(listOf(rowOf({ id: isId, students: listOf(isId, MOST.students) }), MOST.students)),
  ideas: orNull(byId(isIdeaRules)),
  students: listOf(isStudent, MOST.students),
  chat: listOf(isSaying, MOST.sayings),
  notes: orNull(isRecord),
  polls: listOf(isAsked, MOST.rows),
  votes: listOf(rowOf({ mark: isId, page: isId, student: isId }), MOST.rows),
  pages: listOf(isPath, MOST.pages),
});
const isFile = rowOf({
  id: isId,
  kind: (kind) => ['pdf', 'web', 'media', 'picture'].includes(kind as string),
  path: isPath,
  sha256: isHash,
  name: textUpTo(300),
  type: textUpTo(100, 1),
  pageCount: isCount,
  notes: orNull(listOf(textUpTo(100_000), MOST.pages)),
  class: orNull(isId),
  author: orNull(isId),
  createdAt: isTime,
});
const HEAD: Checks = {
  format: (format) => format === ARCHIVE.format,
  version: (version) => version === ARCHIVE.version,
  madeAt: isTime,
  title: textUpTo(200),
  tags: listOf(textUpTo(100, 1), 100),
  teacher: rowOf({ id: isId, name: textUpTo(200) }),
  pages: listOf(isPath, MOST.pages),
  classes: listOf(isClass, MOST.classes),
  files: listOf(isFile, MOST.files),
};

/** What an archive says is in it, brought to the version of today. Throws UnreadableArchive. */
export function checkHead(value: unknown, migrations: Migrations = MIGRATIONS): ArchiveHead {
  if (!isRecord(value) || value['format'] !== ARCHIVE.format) throw new UnreadableArchive('none');
  const { version } = value;
  if (typeof version !== 'number') throw new UnreadableArchive('broken');
  if (version > ARCHIVE.version) throw new UnreadableArchive('newer');
  const today = migrated(value, version, migrations);
  if (!hasExactly(today, HEAD)) throw new UnreadableArchive('broken');
  return today as unknown as ArchiveHead;
}

function migrated(
  value: Record<string, unknown>,
  version: number,
  migrations: Migrations,
): Record<string, unknown> {
  let today = value;
  for (let from = version; from < ARCHIVE.version; from++) {
    const migrate = migrations[from];
    if (!migrate) throw new UnreadableArchive('broken');
    today = { ...migrate(today), version: from + 1 };
  }
  return today;
}

/** A page of an archive with its marks, all of which lie on it. Throws UnreadableArchive. */
export function checkPage(value: unknown): ArchivedPage {
  if (!hasExactly(value, { page: isPage, marks: (marks) => Array.isArray(marks) && marks.every(isMark) }))
    throw new UnreadableArchive('broken');
  const read = value as ArchivedPage;
  if (read.marks.some(({ page }) => page !== read.page.id)) throw new UnreadableArchive('broken');
  return read;
}
