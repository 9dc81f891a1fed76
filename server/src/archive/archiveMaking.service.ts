import type { OnModuleDestroy } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import type { ArchivedPage, ArchiveHead } from '@doodla/core/archive';
import { HEAD_FILE } from '@doodla/core/archive';
import { randomUUID } from 'node:crypto';
import { mkdir, rm, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import type { Lesson } from '../lessons/lesson.entity.js';
import { Material } from '../materials/material.entity.js';
import { PagePictures } from '../materials/pagePictures.js';
import type { Teacher } from '../people/teacher.entity.js';
import { processScript } from '../reading/processScript.js';
import { ReaderPool } from '../reading/readerPool.js';
import { FileStore } from '../storage/fileStore.js';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { ArchiveContentService } from './archiveContent.service.js';
import type { ArchiveAnswer, ArchiveNote, ArchiveTask } from './archiveTask.js';

const LIMITS = { timeMs: 15 * 60_000, memoryMb: 1500 };
const AT_ONCE = 2;

/** A file that was made and is to be removed once it has been sent. */
export interface MadeArchive {
  path: string;
  remove(): Promise<void>;
}

interface MakeOptions {
  signal: AbortSignal;
  onProgress(note: ArchiveNote): void;
  /** Whether its classes are in it; with them, what is known of students. */
  withClasses?: boolean;
}

/** Makes archives of lessons, in a process beside the server. */
@Injectable()
export class ArchiveMakingService implements OnModuleDestroy {
  private readonly packers = new ReaderPool<ArchiveTask, ArchiveAnswer, ArchiveNote>(
    processScript('archive'),
    LIMITS,
    AT_ONCE,
  );

  constructor(
    private readonly content: ArchiveContentService,
    private readonly files: FileStore,
    private readonly pagePictures: PagePictures,
    @InjectRepository(Material) private readonly materials: Repository<Material>,
  ) {}

  onModuleDestroy(): void {
    this.packers.stop();
  }

  /** Rejects with the signal's reason where it is cancelled. */
  async make(
    lesson: Lesson,
    teacher: Teacher,
    { signal, onProgress, withClasses = true }: MakeOptions,
  ): Promise<MadeArchive> {
    await this.files.checkRoom();
    const folder = join(this.files.incoming, randomUUID());
    const out = join(this.files.incoming, `${randomUUID()}.zip`);
    const pages = await this.content.pageCount(lesson, withClasses);
    // Each page is written down, and then drawn.
    const total = 2 * pages;
    let written = 0;
    try {
      const head = await this.content.of({ lesson, teacher, withClasses }, async ({ path, content }) => {
        signal.throwIfAborted();
        await put(join(folder, path), JSON.stringify(content));
        await this.putGround(join(folder, path.replace(/json$/, 'webp')), content);
        onProgress({ done: ++written, total });
      });
      await put(join(folder, HEAD_FILE), JSON.stringify(head, undefined, 2));
      const task: ArchiveTask = { kind: 'pack', folder, out, files: await this.packed(head) };
      await this.packers.run(task, {
        owner: teacher.id,
        signal,
        onNote: ({ done }) => onProgress({ done: pages + done, total }),
      });
      return { path: out, remove: () => rm(out, { force: true }) };
    } catch (error) {
      await rm(out, { force: true });
      throw error;
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  }

  private packed({ files }: ArchiveHead): Promise<{ path: string; from: string }[]> {
    return Promise.all(
      files.map(async ({ path, sha256 }) => ({ path, from: await this.files.local(sha256) })),
    );
  }

  /** A picture of what lies under the marks of a page of a document, which a drawing cannot show otherwise. */
  private async putGround(path: string, { page }: ArchivedPage): Promise<void> {
    const { surface } = page;
    if (surface.kind !== 'pdf') return;
    const material = await this.materials.findOneBy({ id: surface.material });
    try {
      if (material) await put(path, await this.pagePictures.of(material, surface.index));
    } catch {
      // A document that cannot be drawn is in the archive all the same.
    }
  }
}

async function put(path: string, content: string | Uint8Array): Promise<void> {
  await mkdir(dirname(path), { recursive: true });
  await writeFile(path, content);
}
