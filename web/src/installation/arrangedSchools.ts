import type { SchoolFigures } from '@doodla/core';

export const ORDERS = ['name', 'teachers', 'lessons', 'classes', 'students', 'bytes', 'usedAt'] as const;
export type Order = (typeof ORDERS)[number];

/** What is counted of each school. */
export const FIGURES = ['teachers', 'lessons', 'classes', 'students'] as const;

/** The schools whose names or addresses have the words, by name from the first, or by a figure from the largest. */
export function arrangedSchools(
  schools: readonly SchoolFigures[],
  words: string,
  order: Order,
): SchoolFigures[] {
  const wanted = words.trim().toLowerCase();
  const found = schools.filter(({ name, slug }) => `${name} ${slug}`.toLowerCase().includes(wanted));
  return found.sort((a, b) =>
    order === 'name' ? a.name.localeCompare(b.name) : Number(b[order] ?? 0) - Number(a[order] ?? 0),
  );
}

/** Figures of all schools together. */
export function totals(schools: readonly SchoolFigures[]) {
  const sum = (figure: (typeof FIGURES)[number] | 'bytes') =>
    schools.reduce((all, school) => all + school[figure], 0);
  return {
    teachers: sum('teachers'),
    lessons: sum('lessons'),
    classes: sum('classes'),
    students: sum('students'),
    bytes: sum('bytes'),
  };
}
