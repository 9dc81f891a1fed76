import type { OnModuleInit } from '@nestjs/common';
import { Injectable, Logger } from '@nestjs/common';
import type { SchoolCleared } from '@doodla/core';
import { LogsService } from '../live/logs.service.js';
import { Jobs } from '../processes/jobs.js';
import { SchoolsService } from '../schools/schools.service.js';
import { FileStore } from '../storage/fileStore.js';
import type { Write } from '../storage/database.js';
import { Database } from '../storage/database.js';

const DAY_MS = 24 * 3600 * 1000;
/** How long what a class has dropped can still be brought back, and a file is kept that nothing names. */
export const KEPT_MS = DAY_MS;
/** How long a deleted lesson can still be brought back. */
export const TRASH_MS = 30 * DAY_MS;
const EVERY_MS = 3600 * 1000;

/** Whether a file is still named somewhere. */
const IS_NAMED = `EXISTS (SELECT 1 FROM material WHERE sha256 = gone_file.sha256)
  OR EXISTS (SELECT 1 FROM picture WHERE sha256 = gone_file.sha256)
  OR EXISTS (SELECT 1 FROM shelf_picture WHERE sha256 = gone_file.sha256)
  OR EXISTS (SELECT 1 FROM shelf_thing WHERE preview_sha256 = gone_file.sha256)
  OR EXISTS (SELECT 1 FROM shelf_thing_picture WHERE sha256 = gone_file.sha256)
  OR EXISTS (SELECT 1 FROM shared_link WHERE sha256 = gone_file.sha256)
  OR EXISTS (SELECT 1 FROM lesson WHERE cover_sha256 = gone_file.sha256)
  OR EXISTS (SELECT 1 FROM sitting WHERE cover_sha256 = gone_file.sha256)
  OR EXISTS (SELECT 1 FROM explanation_piece WHERE sha256 = gone_file.sha256)`;

/** What was cleared away at a time. */
export interface Cleared {
  at: number;
  classes: number;
  lessons: number;
  files: number;
  bytes: number;
}

/** A lesson or class that goes, and whose. */
interface GoneLog {
  id: string;
  isClass: number;
  school: string;
}

/**
 * Drops classes whose time is over (`DOODLA_RETENTION_DAYS`), and for good what was dropped more than a day ago, or deleted more than 30 days ago: classes,
 * lessons, marks, documents, things on shelves. A file
 * goes a day after the last thing that named it was seen to go, and for no other reason.
 */
@Injectable()
export class PurgeService implements OnModuleInit {
  private readonly logger = new Logger('Purge');

  constructor(
    private readonly logs: LogsService,
    private readonly files: FileStore,
    private readonly database: Database,
    private readonly schools: SchoolsService,
    private readonly jobs: Jobs,
  ) {}

  onModuleInit(): void {
    // A disk that is full or a database that is locked is no reason to stop: it is tried again in an hour.
    this.jobs.every('clear away what was deleted', EVERY_MS, () => this.purge());
    this.jobs.everywhere('let go of copies', EVERY_MS, () => this.files.trim());
  }

  /** What was cleared away, the last first, at most so many times. */
  cleared(most: number): Promise<Cleared[]> {
    return this.database.all<Cleared>('SELECT * FROM cleared ORDER BY at DESC LIMIT ?', [most]);
  }

  /**
   * What was cleared away of a school, the last first, at most so many times. A file may be of several schools, so it is told by
   * none where there are several.
   */
  async clearedOf(schoolId: string, most: number): Promise<SchoolCleared[]> {
    if ((await this.schools.count()) === 1) return this.cleared(most);
    return this.database.all<SchoolCleared>(
      `SELECT at, classes, lessons, NULL AS files, NULL AS bytes FROM school_cleared
       WHERE school_id = ? ORDER BY at DESC LIMIT ?`,
      [schoolId, most],
    );
  }

  async purge(now = Date.now()): Promise<void> {
    await this.expire(now);
    const before = now - KEPT_MS;
    const deletedBefore = now - TRASH_MS;
    const logs = await this.goneLogs(before, deletedBefore);
    await this.logs.remove(logs.map(({ id }) => id));
    await this.database.together(
      ['DELETE FROM sitting WHERE dropped_at < ?', [before]],
      ['DELETE FROM lesson WHERE deleted_at < ?', [deletedBefore]],
      ['DELETE FROM explanation WHERE dropped_at < ?', [before]],
      ['DELETE FROM shelf_thing WHERE deleted_at < ?', [deletedBefore]],
      [
        `DELETE FROM material WHERE created_at < ? AND id NOT IN
           (SELECT material_id FROM lesson_material UNION SELECT material_id FROM sitting_material
            UNION SELECT material_id FROM shelf_thing_material)`,
        [before],
      ],
    );
    const { files, bytes } = await this.removeFiles(before);
    const classes = logs.filter(({ isClass }) => isClass === 1).length;
    await this.note({ at: now, classes, lessons: logs.length - classes, files, bytes });
    await this.noteBySchool(now, logs);
  }

  private goneLogs(before: number, deletedBefore: number): Promise<GoneLog[]> {
    const whose = 'JOIN teacher ON teacher.id = teacher_id';
    return this.database.all<GoneLog>(
      `SELECT lesson.id, 0 AS "isClass", school_id AS school FROM lesson ${whose} WHERE deleted_at < ?
       UNION SELECT sitting.id, 1, school_id FROM sitting JOIN lesson ON lesson.id = lesson_id ${whose}
         WHERE dropped_at < ? OR deleted_at < ?`,
      [deletedBefore, before, deletedBefore],
    );
  }

  /** Drops classes whose time is over: so long after they ended, or after they were last written in. */
  private async expire(now: number): Promise<void> {
    for (const [days, schools] of this.schools.byRetention()) {
      const before = now - days * DAY_MS;
      await this.database.together([
        `UPDATE sitting SET dropped_at = ?, ended_at = coalesce(ended_at, ?)
         WHERE dropped_at IS NULL AND coalesce(keep_until, 0) < ? AND opened_at < ? AND coalesce(ended_at,
           (SELECT max(at) FROM operation JOIN log ON operation.log = log.key WHERE log.id = sitting.id), opened_at) < ?
         AND lesson_id IN (SELECT lesson.id FROM lesson JOIN teacher ON teacher.id = teacher_id
           WHERE school_id IN (${schools.map(() => '?').join(', ')}))`,
        [now, now, now, before, before, ...schools],
      ]);
    }
  }

  /** Says what was cleared away; kept for two years. */
  private async note(what: Cleared): Promise<void> {
    const { at, classes, lessons, files, bytes } = what;
    if (classes + lessons + files === 0) return;
    this.logger.log(
      `Cleared away: classes ${classes}, lessons ${lessons}, files ${files} (${Math.ceil(bytes / 1e6)} MB)`,
    );
    await this.database.together(
      [
        `INSERT INTO cleared VALUES (?, ?, ?, ?, ?) ON CONFLICT (at)
         DO UPDATE SET classes = excluded.classes, lessons = excluded.lessons, files = excluded.files, bytes = excluded.bytes`,
        [at, classes, lessons, files, bytes],
      ],
      ['DELETE FROM cleared WHERE at < ?', [at - 730 * DAY_MS]],
    );
  }

  private async noteBySchool(at: number, logs: readonly GoneLog[]): Promise<void> {
    const schools = [...new Set(logs.map(({ school }) => school))];
    await this.database.together(
      ...schools.map((school): Write => {
        const gone = logs.filter((log) => log.school === school);
        const classes = gone.filter(({ isClass }) => isClass === 1).length;
        return [
          `INSERT INTO school_cleared VALUES (?, ?, ?, ?) ON CONFLICT (school_id, at)
           DO UPDATE SET classes = excluded.classes, lessons = excluded.lessons`,
          [school, at, classes, gone.length - classes],
        ];
      }),
      ['DELETE FROM school_cleared WHERE at < ?', [at - 730 * DAY_MS]],
    );
  }

  private async removeFiles(before: number): Promise<Pick<Cleared, 'files' | 'bytes'>> {
    const removed = { files: 0, bytes: 0 };
    const gone = await this.database.all<{ sha256: string; named: number }>(
      `SELECT sha256, CASE WHEN ${IS_NAMED} THEN 1 ELSE 0 END AS named FROM gone_file WHERE at < ?`,
      [before],
    );
    for (const { sha256, named } of gone) {
      const seen: Write = ['DELETE FROM gone_file WHERE sha256 = ? AND at < ?', [sha256, before]];
      if (named === 1) {
        await this.database.together(seen);
        continue;
      }
      const size = await this.files.sizeOf(sha256);
      if (!(await this.files.remove(sha256, before))) continue;
      removed.files += 1;
      removed.bytes += size;
      await this.database.together(
        ['DELETE FROM read_words WHERE sha256 = ?', [sha256]],
        ['DELETE FROM printed_words WHERE sha256 = ?', [sha256]],
        seen,
      );
    }
    return removed;
  }
}
