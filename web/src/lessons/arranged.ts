import type { Folder, LessonSummary } from '@doodla/core';

/** Which of the lessons are shown. */
export const PLACES = ['lastUsed', 'folders', 'favourites', 'archive', 'trash'] as const;
export type PlaceId = (typeof PLACES)[number];

export const SORTS = ['used', 'created', 'title'] as const;
export type Sort = (typeof SORTS)[number];

export interface Wanted {
  place: PlaceId;
  /** The folder that is open; undefined for what lies in none. */
  folder: string | undefined;
  tag: string | undefined;
  sort: Sort;
}

/** The lessons that are wanted, in their order. */
export function arranged(
  lessons: readonly LessonSummary[],
  { place, folder, tag, sort }: Wanted,
): LessonSummary[] {
  return lessons
    .filter((lesson) => isIn(place, lesson, folder) && (tag === undefined || lesson.tags.includes(tag)))
    .sort(ORDERS[sort]);
}

function isIn(place: PlaceId, lesson: LessonSummary, folder: string | undefined): boolean {
  switch (place) {
    case 'trash':
      return lesson.deletedAt !== null;
    case 'archive':
      return lesson.archived;
    case 'favourites':
      return lesson.favourite && !lesson.archived;
    case 'folders':
      return lesson.folder === (folder ?? null) && !lesson.archived;
    default:
      return !lesson.archived;
  }
}

const ORDERS: Record<Sort, (a: LessonSummary, b: LessonSummary) => number> = {
  used: (a, b) => b.usedAt - a.usedAt,
  created: (a, b) => b.createdAt - a.createdAt,
  title: (a, b) => a.title.localeCompare(b.title, undefined, { numeric: true }),
};

/** All tags of lessons, in alphabetical order. */
export function tagsOf(lessons: readonly LessonSummary[]): string[] {
  const tags = new Set(lessons.filter(({ archived }) => !archived).flatMap((lesson) => lesson.tags));
  return [...tags].sort((a, b) => a.localeCompare(b, undefined, { numeric: true }));
}

/** A folder and those that it lies in, the outermost first; none where it is not there. */
export function pathTo(folders: readonly Folder[], id: string | undefined): Folder[] {
  const path: Folder[] = [];
  for (let at = folders.find((one) => one.id === id); at;) {
    path.unshift(at);
    const { parent } = at;
    at = path.length > folders.length ? undefined : folders.find((one) => one.id === parent);
  }
  return path;
}
