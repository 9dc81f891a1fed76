import { Injectable } from '@nestjs/common';
import type { ClassHit, LessonHit, PageHit, SearchReply } from '@doodla/core';
import { hasWords, orderedPages, searchWords } from '@doodla/core';
import { LogsService } from '../live/logs.service.js';
import { Database } from '../storage/database.js';
import type { FoundRow } from '../storage/wordIndex.js';
import { WordIndex } from '../storage/wordIndex.js';
import { CLASS_NOTES } from './searchIndex.service.js';

/** Hits of each sort that are told. */
const MOST_HITS = 40;
interface LessonRow {
  lesson: string;
  title: string;
  tags: string | null;
}

type ClassRow = Omit<ClassHit, 'snippet'> & { groupTitle: string | null };

/** Finds a teacher's lessons, classes and pages by words. */
@Injectable()
export class SearchService {
  constructor(
    private readonly database: Database,
    private readonly index: WordIndex,
    private readonly logs: LogsService,
  ) {}

  /** What has all words of a question, or words that begin with them; the best first. */
  async find(teacherId: string, question: string): Promise<SearchReply> {
    const words = searchWords(question);
    if (words.length === 0) return { lessons: [], classes: [], pages: [] };
    const [notes, pages] = parted(await this.index.find(teacherId, words, MOST_HITS));
    const named = await this.classesWith(teacherId, words);
    const noted = notes.filter(({ sitting }) => !named.some((one) => one.sitting === sitting)).map(classOf);
    return {
      lessons: await this.lessonsWith(teacherId, words),
      classes: [...named, ...noted],
      pages: await this.numbered(pages),
    };
  }

  private async lessonsWith(teacherId: string, words: readonly string[]): Promise<LessonHit[]> {
    const rows = await this.database.all<LessonRow>(
      `SELECT id AS lesson, title, tags FROM lesson WHERE teacher_id = ? AND deleted_at IS NULL
       ORDER BY used_at DESC`,
      [teacherId],
    );
    return rows
      .filter(({ title, tags }) => hasWords(`${title} ${tags ?? ''}`, words))
      .slice(0, MOST_HITS)
      .map(({ lesson, title }) => ({ lesson, title }));
  }

  /** Classes by their name, their group's, and the day on which they began, in words and in figures. */
  private async classesWith(teacherId: string, words: readonly string[]): Promise<ClassHit[]> {
    const rows = await this.database.all<ClassRow>(
      `SELECT sitting.id AS sitting, lesson.id AS lesson, sitting.title, lesson.title AS "lessonTitle",
         sitting.opened_at AS "openedAt", class_group.title AS "groupTitle"
       FROM sitting JOIN lesson ON lesson.id = lesson_id LEFT JOIN class_group ON class_group.id = group_id
       WHERE lesson.teacher_id = ? AND deleted_at IS NULL AND dropped_at IS NULL ORDER BY sitting.opened_at DESC`,
      [teacherId],
    );
    return rows
      .filter(({ title, groupTitle, openedAt }) =>
        hasWords(`${title} ${groupTitle ?? ''} ${dayInWords(openedAt)}`, words),
      )
      .slice(0, MOST_HITS)
      .map(({ sitting, lesson, title, lessonTitle, openedAt }) => ({
        sitting,
        lesson,
        title,
        lessonTitle,
        openedAt,
        snippet: [],
      }));
  }

  /** Pages with their numbers; those that are not there any more are left out. */
  private async numbered(rows: readonly FoundRow[]): Promise<PageHit[]> {
    const numbers = new Map<string, Map<string, number>>();
    for (const { log } of rows) if (!numbers.has(log)) numbers.set(log, await this.numbersIn(log));
    return rows.flatMap(({ log, snippet, lesson, lessonTitle, sitting, sittingTitle, page }) => {
      const number = numbers.get(log)!.get(page);
      if (number === undefined) return [];
      return [{ lesson, lessonTitle, sitting, sittingTitle, page, number, snippet }];
    });
  }

  private async numbersIn(log: string): Promise<Map<string, number>> {
    return new Map(orderedPages((await this.logs.open(log)).pages.values()).map(({ id }, i) => [id, i + 1]));
  }
}

/** What was found in the notes of classes, and on pages. */
function parted(rows: readonly FoundRow[]): [notes: FoundRow[], pages: FoundRow[]] {
  const isNotes = ({ page }: FoundRow) => page === CLASS_NOTES;
  return [rows.filter(isNotes), rows.filter((row) => !isNotes(row))];
}

function classOf({ sitting, sittingTitle, lesson, lessonTitle, openedAt, snippet }: FoundRow): ClassHit {
  return {
    sitting: sitting!,
    lesson,
    title: sittingTitle!,
    lessonTitle,
    openedAt: openedAt!,
    snippet,
  };
}

const DAY_FORMS = ['en-GB', 'de'].map(
  (locale) =>
    new Intl.DateTimeFormat(locale, { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' }),
);

/** Such as *Tuesday 24 November 2026 Dienstag, 24. November 2026 24 11 2026*. */
function dayInWords(time: number): string {
  const date = new Date(time);
  const figures = `${date.getDate()} ${date.getMonth() + 1} ${date.getFullYear()}`;
  return [...DAY_FORMS.map((form) => form.format(date)), figures].join(' ');
}
