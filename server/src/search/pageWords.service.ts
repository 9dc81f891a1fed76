import type { OnModuleDestroy } from '@nestjs/common';
import { Injectable, Logger } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { Page } from '@doodla/core';
import { readFile } from 'node:fs/promises';
import { Repository } from 'typeorm';
import { logFailure } from '../http/failures.js';
import { Material } from '../materials/material.entity.js';
import { PdfReader } from '../materials/pdfReader.js';
import { StoredPicture } from '../pictures/picture.entity.js';
import { FileStore } from '../storage/fileStore.js';
import { WordsService } from '../words/words.service.js';
import { PrintedWords } from './printedWords.entity.js';
import { wordsOfHtml } from './wordsOfHtml.js';

/** What a page says without its marks. */
export interface PageWords {
  printed: string;
  /** What the speaker wrote beside it. */
  notes: string;
}

const NONE: PageWords = { printed: '', notes: '' };
/** Pages that are written at once. */
const ROWS_AT_ONCE = 100;

/** What lies under the marks of pages, in words: of documents, web pages, and what was read of pictures. */
@Injectable()
export class PageWordsService implements OnModuleDestroy {
  private readonly logger = new Logger('Search');
  /** Documents whose words are just being read, by their files. */
  private readonly reading = new Map<string, Promise<void>>();
  private readonly stop = new AbortController();

  constructor(
    @InjectRepository(PrintedWords) private readonly known: Repository<PrintedWords>,
    @InjectRepository(Material) private readonly materials: Repository<Material>,
    @InjectRepository(StoredPicture) private readonly pictures: Repository<StoredPicture>,
    private readonly pdfs: PdfReader,
    private readonly files: FileStore,
    private readonly words: WordsService,
  ) {}

  /** A server that ends does not wait for a document to be read; the next start reads it. */
  onModuleDestroy(): void {
    this.stop.abort(new Error('The server ends.'));
  }

  async of({ surface }: Pick<Page, 'surface'>): Promise<PageWords> {
    if (surface.kind === 'picture') {
      const picture = await this.pictures.findOneBy({ id: surface.material });
      return picture ? { printed: await this.readOf(picture.sha256, null), notes: '' } : NONE;
    }
    if (surface.kind !== 'pdf' && surface.kind !== 'web') return NONE;
    const material = await this.materials.findOneBy({ id: surface.material });
    if (!material) return NONE;
    const index = surface.kind === 'pdf' ? surface.index : 0;
    await this.see(material);
    const { words = '' } = (await this.known.findOneBy({ sha256: material.sha256, page: index })) ?? {};
    const read = await this.readOf(material.sha256, index);
    return { printed: `${words} ${read}`.trim(), notes: material.notes?.[index] ?? '' };
  }

  private async readOf(sha256: string, page: number | null): Promise<string> {
    return ((await this.words.of({ sha256, page })) ?? []).map(({ text }) => text).join(' ');
  }

  /** Sees to it that the words of a file are known. */
  private see(material: Material): Promise<void> {
    const { sha256 } = material;
    let reading = this.reading.get(sha256);
    if (!reading) {
      reading = this.read(material).finally(() => this.reading.delete(sha256));
      this.reading.set(sha256, reading);
    }
    return reading;
  }

  private async read({ kind, sha256, teacherId }: Material): Promise<void> {
    if (await this.known.existsBy({ sha256 })) return;
    const path = await this.files.local(sha256);
    let pages: string[];
    try {
      pages =
        kind === 'web'
          ? [wordsOfHtml(await readFile(path, 'utf8'))]
          : await this.pdfs.words(path, { owner: `search ${teacherId}`, signal: this.stop.signal });
    } catch (error) {
      this.stop.signal.throwIfAborted();
      // A file whose words cannot be read is found by its title and by what is written on it.
      logFailure(this.logger, 'The words of a file could not be read', error);
      pages = [''];
    }
    const rows = pages.map((words, page) => ({ sha256, page, words }));
    for (let from = 0; from < rows.length; from += ROWS_AT_ONCE)
      await this.known.upsert(rows.slice(from, from + ROWS_AT_ONCE), ['sha256', 'page']);
  }
}
