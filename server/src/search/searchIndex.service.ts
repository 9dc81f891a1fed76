import type { OnApplicationBootstrap, OnModuleDestroy } from '@nestjs/common';
import { Injectable, Logger } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { Change, Mark, Page } from '@doodla/core';
import { typedIn } from '@doodla/core';
import { paragraphsOf } from '@doodla/core/notes';
import { Repository } from 'typeorm';
import { logFailure } from '../http/failures.js';
import { Lesson } from '../lessons/lesson.entity.js';
import type { FreshOperation } from '../live/logs.service.js';
import { LogsService } from '../live/logs.service.js';
import { slowLane } from '../live/slowLane.js';
import { Sitting } from '../sittings/sitting.entity.js';
import { Database } from '../storage/database.js';
import type { FoundWords } from '../storage/wordIndex.js';
import { WordIndex } from '../storage/wordIndex.js';
import { NotesService } from '../talk/notes.service.js';
import { FoundPage } from './foundPage.entity.js';
import { PageWordsService } from './pageWords.service.js';

/** So long after a change its page is looked at: whoever types has finished then. */
const WAIT_MS = 1500;
/** Most letters of what is typed on a page. */
const MOST_TYPED = 50_000;
const NO_WORDS: FoundWords = { title: '', typed: '', printed: '', notes: '' };
/** In the place of a page: the notes of a class. */
export const CLASS_NOTES = '';

/** Keeps the words of all pages where they are found. */
@Injectable()
export class SearchIndexService implements OnApplicationBootstrap, OnModuleDestroy {
  private readonly logger = new Logger('Search');
  /** Pages that have changed, as `log page`. */
  private readonly stale = new Set<string>();
  private timer: NodeJS.Timeout | undefined;
  private working: Promise<void> = Promise.resolve();
  private stopped = false;

  constructor(
    @InjectRepository(FoundPage) private readonly found: Repository<FoundPage>,
    @InjectRepository(Lesson) private readonly lessons: Repository<Lesson>,
    @InjectRepository(Sitting) private readonly sittings: Repository<Sitting>,
    private readonly logs: LogsService,
    private readonly words: PageWordsService,
    private readonly notes: NotesService,
    private readonly database: Database,
    private readonly index: WordIndex,
  ) {}

  async onApplicationBootstrap(): Promise<void> {
    this.logs.onAppended((log, fresh) => this.note(log, fresh));
    this.notes.onKept((sitting) => this.mark(sitting, CLASS_NOTES));
    const missing = await this.database.all<{ log: string; page: string }>(
      `SELECT log.id AS log, log_page.id AS page FROM log_page JOIN log ON log.key = log_page.log
       WHERE NOT EXISTS (SELECT 1 FROM found_page WHERE found_page.log = log.id AND found_page.page = log_page.id)
       UNION ALL SELECT sitting_id, '${CLASS_NOTES}' FROM class_notes
       WHERE NOT EXISTS (SELECT 1 FROM found_page WHERE log = sitting_id AND page = '${CLASS_NOTES}')`,
    );
    for (const { log, page } of missing) this.mark(log, page);
  }

  async onModuleDestroy(): Promise<void> {
    this.stopped = true;
    clearTimeout(this.timer);
    await this.working;
  }

  /** Resolves once all that has changed so far can be found. */
  async settled(): Promise<void> {
    while (this.timer || this.stale.size > 0) {
      clearTimeout(this.timer);
      this.timer = undefined;
      await this.work();
    }
    await this.working;
  }

  /** Looks at a page anew, such as after its words were read. */
  mark(log: string, page: string): void {
    this.stale.add(`${log} ${page}`);
    this.timer ??= setTimeout(() => {
      this.timer = undefined;
      this.work().catch((error: unknown) => logFailure(this.logger, 'Pages could not be indexed', error));
    }, WAIT_MS).unref();
  }

  /** Looks anew at all pages that show a file, such as after its words were read. */
  async markFile(sha256: string): Promise<void> {
    const pages = await this.database.all<{ log: string; page: string }>(
      `SELECT log.id AS log, log_page.id AS page FROM log_page JOIN log ON log.key = log_page.log
       WHERE ${this.database.textIn('body', 'surface', 'material')} IN
         (SELECT id FROM material WHERE sha256 = ? UNION SELECT id FROM picture WHERE sha256 = ?)`,
      [sha256, sha256],
    );
    for (const { log, page } of pages) this.mark(log, page);
  }

  private note(log: string, { logged, inverse, known }: FreshOperation): void {
    for (const page of pagesWithOtherWords([...logged.operation.changes, ...inverse], known))
      this.mark(log, page);
  }

  private work(): Promise<void> {
    const stale = [...this.stale];
    this.stale.clear();
    this.working = this.working.then(async () => {
      for (const place of stale) {
        if (this.stopped) return;
        await this.look(place);
        await slowLane.turn();
      }
    });
    return this.working;
  }

  private async look(place: string): Promise<void> {
    try {
      const [log, page] = place.split(' ') as [string, string];
      const owner = await this.ownerOf(log);
      const text = owner && (await this.textAt(log, page, owner.lessonId));
      if (text) await this.keep({ log, page, ...owner }, text);
    } catch (error) {
      if (this.stopped) return;
      // A page that is not found is no reason to leave out the others; its next change tries again.
      logFailure(this.logger, 'A page could not be indexed', error);
    }
  }

  private async ownerOf(log: string): Promise<Pick<FoundPage, 'lessonId' | 'sittingId'> | undefined> {
    if (await this.lessons.existsBy({ id: log })) return { lessonId: log, sittingId: null };
    const sitting = await this.sittings.findOneBy({ id: log });
    return sitting ? { lessonId: sitting.lessonId, sittingId: log } : undefined;
  }

  /** The words of a page; undefined where there is no such page. */
  private async textAt(log: string, page: string, lesson: string): Promise<FoundWords | undefined> {
    if (page === CLASS_NOTES) return { ...NO_WORDS, notes: await this.notesOf(log) };
    const there = (await this.logs.open(log)).pages.get(page);
    return there && this.textOf(log, there, lesson);
  }

  private async notesOf(sitting: string): Promise<string> {
    const { doc } = await this.notes.of(sitting);
    return paragraphsOf(doc)
      .map(({ text }) => text)
      .join(' ');
  }

  private async textOf(log: string, page: Page, lesson: string): Promise<FoundWords> {
    if (page.removed) return NO_WORDS;
    const marks = await (await this.logs.open(log)).marksOn(page.id);
    const typed = [...marks.values()].map(typedIn).join(' ').slice(0, MOST_TYPED);
    // What a class's page has from its lesson is found there.
    const isLessons = log !== lesson && (await this.logs.open(lesson)).pages.get(page.id)?.removed === false;
    if (isLessons) return { ...NO_WORDS, typed };
    const { printed, notes } = await this.words.of(page);
    return { title: page.title, typed, printed, notes };
  }

  private async keep(place: Omit<FoundPage, 'key'>, text: FoundWords): Promise<void> {
    const { log, page, lessonId, sittingId } = place;
    await this.database.together([
      `INSERT INTO found_page (log, page, lesson_id, sitting_id) VALUES (?, ?, ?, ?) ON CONFLICT DO NOTHING`,
      [log, page, lessonId, sittingId],
    ]);
    const { key } = await this.found.findOneByOrFail({ log, page });
    await this.index.put(key, text);
  }
}

/** Pages whose words may be others after changes. */
export function pagesWithOtherWords(
  changes: readonly Change[],
  known: (mark: string) => Mark | undefined,
): Set<string> {
  const pages = new Set<string>();
  for (const change of changes) {
    const page = pageWithOtherWords(change, known);
    if (page !== undefined) pages.add(page);
  }
  return pages;
}

function pageWithOtherWords(change: Change, known: (mark: string) => Mark | undefined): string | undefined {
  switch (change.do) {
    case 'addPage':
      return change.page.id;
    case 'patchPage':
    case 'removePage':
      return change.page;
    case 'patch':
      return 'text' in change.set || 'alt' in change.set ? known(change.mark)?.page : undefined;
    default: {
      const mark = change.do === 'add' ? change.mark : known(change.mark);
      return mark && typedIn(mark) !== '' ? mark.page : undefined;
    }
  }
}
