import type { OnApplicationBootstrap, OnModuleDestroy } from '@nestjs/common';
import { Injectable, Logger } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { logFailure } from '../http/failures.js';
import { LogsService } from '../live/logs.service.js';
import { FileStore } from '../storage/fileStore.js';
import type { Write } from '../storage/writes.js';
import { Writes } from '../storage/writes.js';

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
  OR EXISTS (SELECT 1 FROM lesson WHERE cover_sha256 = gone_file.sha256)`;

/**
 * Drops for good what was dropped more than a day ago, or deleted more than 30 days ago: classes, lessons, marks, documents. A file
 * goes a day after the last thing that named it was seen to go, and for no other reason.
 */
@Injectable()
export class PurgeService implements OnApplicationBootstrap, OnModuleDestroy {
  private readonly logger = new Logger('Purge');
  private timer: NodeJS.Timeout | undefined;

  constructor(
    private readonly database: DataSource,
    private readonly logs: LogsService,
    private readonly files: FileStore,
    private readonly writes: Writes,
  ) {}

  async onApplicationBootstrap(): Promise<void> {
    await this.tryToPurge();
    this.timer = setInterval(() => void this.tryToPurge(), EVERY_MS).unref();
  }

  onModuleDestroy(): void {
    clearInterval(this.timer);
  }

  async purge(now = Date.now()): Promise<void> {
    const before = now - KEPT_MS;
    const deletedBefore = now - TRASH_MS;
    const logs = await this.database.query<{ id: string }[]>(
      `SELECT id FROM lesson WHERE deleted_at < ?
       UNION SELECT id FROM sitting WHERE dropped_at < ?
       UNION SELECT sitting.id FROM sitting JOIN lesson ON lesson.id = lesson_id WHERE deleted_at < ?`,
      [deletedBefore, before, deletedBefore],
    );
    await this.logs.remove(logs.map(({ id }) => id));
    this.writes.together(
      ['DELETE FROM sitting WHERE dropped_at < ?', [before]],
      ['DELETE FROM lesson WHERE deleted_at < ?', [deletedBefore]],
      [
        `DELETE FROM material WHERE created_at < ? AND id NOT IN
           (SELECT material_id FROM lesson_material UNION SELECT material_id FROM sitting_material)`,
        [before],
      ],
    );
    await this.removeFiles(before);
  }

  private async removeFiles(before: number): Promise<void> {
    const gone = await this.database.query<{ sha256: string; named: number }[]>(
      `SELECT sha256, (${IS_NAMED}) AS named FROM gone_file WHERE at < ?`,
      [before],
    );
    for (const { sha256, named } of gone) {
      const seen: Write = ['DELETE FROM gone_file WHERE sha256 = ? AND at < ?', [sha256, before]];
      if (named === 1) this.writes.together(seen);
      else if (this.files.remove(sha256, before))
        this.writes.together(
          ['DELETE FROM read_words WHERE sha256 = ?', [sha256]],
          ['DELETE FROM printed_words WHERE sha256 = ?', [sha256]],
          seen,
        );
    }
  }

  /** A disk that is full or a database that is locked is no reason to stop: it is tried again in an hour. */
  private async tryToPurge(): Promise<void> {
    try {
      await this.purge();
    } catch (error) {
      logFailure(
        this.logger,
        'What was deleted could not be cleared away; it is tried again in an hour',
        error,
      );
    }
  }
}
