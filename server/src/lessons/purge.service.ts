import type { OnApplicationBootstrap, OnModuleDestroy } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { FileStore } from '../storage/fileStore.js';

/** How long a deleted lesson can still be brought back. */
export const KEPT_MS = 24 * 3600 * 1000;
const EVERY_MS = 3600 * 1000;

/** Drops for good what was deleted or dropped more than a day ago: lessons, classes, marks, documents, files. */
@Injectable()
export class PurgeService implements OnApplicationBootstrap, OnModuleDestroy {
  private timer: NodeJS.Timeout | undefined;

  constructor(
    private readonly database: DataSource,
    private readonly files: FileStore,
  ) {}

  async onApplicationBootstrap(): Promise<void> {
    await this.purge();
    this.timer = setInterval(() => void this.purge(), EVERY_MS).unref();
  }

  onModuleDestroy(): void {
    clearInterval(this.timer);
  }

  async purge(now = Date.now()): Promise<void> {
    const dropped = 'SELECT id FROM lesson WHERE deleted_at < ?';
    const logs = `${dropped} UNION SELECT sitting.id FROM sitting JOIN (${dropped}) AS gone ON gone.id = lesson_id
      UNION SELECT id FROM sitting WHERE dropped_at < ?`;
    const before = now - KEPT_MS;
    await this.database.transaction(async (manager) => {
      await manager.query(`DELETE FROM operation WHERE log_id IN (${logs})`, [before, before, before]);
      await manager.query(`DELETE FROM snapshot WHERE log_id IN (${logs})`, [before, before, before]);
      await manager.query('DELETE FROM sitting WHERE dropped_at < ?', [before]);
      await manager.query('DELETE FROM lesson WHERE deleted_at < ?', [before]);
      await manager.query('DELETE FROM material WHERE id NOT IN (SELECT material_id FROM lesson_material)');
    });
    const kept = await this.database.query<{ sha256: string }[]>(
      'SELECT sha256 FROM material UNION SELECT sha256 FROM picture UNION SELECT sha256 FROM shelf_picture UNION SELECT cover_sha256 FROM lesson WHERE cover_sha256 IS NOT NULL',
    );
    await this.files.keepOnly(new Set(kept.map(({ sha256 }) => sha256)), before);
  }
}
