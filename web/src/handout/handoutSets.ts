import type { Mark, Page } from '@doodla/core';
import { initialsFor } from '@doodla/core';
import type { HandoutPage, Whose } from '@doodla/core/handout';
import { chosenMarks } from '@doodla/core/handout';
import type { PageDesk } from '../room/pageDesk';
import { t } from '../words';
import { sayMark } from '../words/marks';
import type { HandoutChoice } from './handoutOrder';

/** Pages that become files of one name. */
export interface HandoutSet {
  name: string;
  pages: readonly HandoutPage[];
}

/** A student whose marks can be handed out. */
export interface HandoutStudent {
  id: string;
  name: string;
}

/** Those who are, or were, students of the class, by name. */
export function studentsOf({ room }: Pick<PageDesk, 'room'>): HandoutStudent[] {
  const people = room.classroom?.state.get()?.people ?? [];
  return people
    .map(({ id, name }) => ({ id, name: name || t('room.aClassmate') }))
    .sort((a, b) => a.name.localeCompare(b.name));
}

/** What people are called in a handout: by their names, or students by their initials. */
export function calledBy(
  students: readonly HandoutStudent[],
  initials: boolean,
): { nameOf(id: string): string; people: Readonly<Record<string, string>> } {
  const short = initials ? initialsFor(students) : undefined;
  const names = new Map(students.map(({ id, name }) => [id, short?.get(id) ?? name]));
  return {
    nameOf: (id) => names.get(id) ?? t('room.theTeacher'),
    people: Object.fromEntries(names),
  };
}

/** The files that are to be made: one, or one for each student. */
export function handoutSets(
  desk: PageDesk,
  { title, pages, choice }: { title: string; pages: readonly Page[]; choice: HandoutChoice },
): HandoutSet[] {
  const students = studentsOf(desk);
  const ids = new Set(students.map(({ id }) => id));
  const { nameOf } = calledBy(students, choice.initials);
  const setOf = (name: string, whose: Whose): HandoutSet => ({
    name,
    pages: pages.map((page) => handedPage(desk, page, { ...choice, whose }, (author) => ids.has(author))),
  });
  if (choice.whose !== 'each') return [setOf(title, choice.whose)];
  return students.map(({ id }) => setOf(`${title}, ${nameOf(id)}`, { student: id }));
}

function handedPage(
  desk: PageDesk,
  page: Page,
  choice: HandoutChoice & { whose: Whose },
  isStudent: (author: string) => boolean,
): HandoutPage {
  const { lessonLog, target } = desk.room;
  const on = (log: typeof target) => [...log.state.marks.values()].filter((mark) => mark.page === page.id);
  const [prepared, written] = lessonLog === target ? [on(target), []] : [on(lessonLog), on(target)];
  // While preparing, all there is is prepared.
  const own = lessonLog === target ? { ...choice, prepared: true } : choice;
  const marks = chosenMarks({ prepared, written }, own, isStudent);
  return { page, marks, alts: altsOf(marks) };
}

/** What marks are, in words; strokes, which are many and alike, are all called the same. */
function altsOf(marks: readonly Mark[]): Readonly<Record<string, string>> {
  return Object.fromEntries(marks.map((mark) => [mark.id, sayMark(mark)]));
}
