import type { OnModuleDestroy } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { ReadingLanguage } from '@doodla/core';
import { Repository } from 'typeorm';
import { Problem } from '../http/problem.js';
import { processScript } from '../reading/processScript.js';
import type { TurnOptions } from '../reading/fairTurns.js';
import { LimitError } from '../reading/limitedProcess.js';
import { ReaderPool } from '../reading/readerPool.js';
import { FileStore } from '../storage/fileStore.js';
import type { ReadingProgress, ReadingTask, ReadWord } from './readingTask.js';
import { ReadWords } from './readWords.entity.js';

const SCRIPT = processScript('words');
const LIMITS = { timeMs: 120_000, memoryMb: 1500 };
/** Pages that are read at the same time; each takes a core for some seconds. */
const READERS = 2;

/** A page of a stored file; `page` is null where the file is a picture. */
export interface ReadablePage {
  sha256: string;
  page: number | null;
}

/** Reads the words of scanned pages, and remembers them with the file. */
@Injectable()
export class WordsService implements OnModuleDestroy {
  private readonly readers = new ReaderPool<ReadingTask, ReadWord[], ReadingProgress>(
    SCRIPT,
    LIMITS,
    READERS,
  );

  constructor(
    @InjectRepository(ReadWords) private readonly known: Repository<ReadWords>,
    private readonly files: FileStore,
  ) {}

  onModuleDestroy(): void {
    this.readers.stop();
  }

  /** What has been read on a page; undefined where nobody asked for that yet. */
  async of({ sha256, page }: ReadablePage): Promise<ReadWord[] | undefined> {
    return (await this.known.findOneBy({ sha256, page: page ?? 0 }))?.words;
  }

  /** Reads a page, anew where it was read before. Throws Problem with what to do, or the signal's reason. */
  async read(
    { sha256, page }: ReadablePage,
    language: ReadingLanguage,
    { onProgress, ...turn }: TurnOptions & { onProgress(part: number): void },
  ): Promise<ReadWord[]> {
    const task = { path: await this.files.local(sha256), page, language };
    const onNote = ({ part }: ReadingProgress) => onProgress(part);
    const words = await this.readers.run(task, { ...turn, onNote }).catch((error: unknown) => {
      throw error instanceof LimitError || typeof error === 'string' ? cannotBeRead() : error;
    });
    await this.known.upsert({ sha256, page: page ?? 0, language, words }, ['sha256', 'page']);
    return words;
  }
}

function cannotBeRead(): Problem {
  return new Problem(
    422,
    'cannot-be-read',
    'The words of this page could not be read. Please try again; if that does not help, highlight by hand.',
  );
}
