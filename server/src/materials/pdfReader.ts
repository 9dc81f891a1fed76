import type { OnApplicationBootstrap, OnModuleDestroy } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import { availableParallelism } from 'node:os';
import { processScript } from '../reading/processScript.js';
import type { TurnOptions } from '../reading/fairTurns.js';
import { LimitError } from '../reading/limitedProcess.js';
import { ReaderPool } from '../reading/readerPool.js';
import type { PdfAnswer, PdfFailure, PdfFault, PdfProgress, PdfTask, PictureWish } from './pdfTask.js';

/** Thrown where a PDF cannot be used. */
export class PdfError extends Error {
  readonly fault: PdfFault;
  readonly pages: number | undefined;

  constructor({ fault, pages }: PdfFailure) {
    super(fault);
    this.name = 'PdfError';
    this.fault = fault;
    this.pages = pages;
  }
}

export interface PdfTaskOptions extends TurnOptions {
  onProgress?(done: number, total: number): void;
}

type Answer<Kind extends PdfTask['kind']> = Extract<PdfAnswer, { kind: Kind }>;
type Pool = ReaderPool<PdfTask, PdfAnswer, PdfProgress>;

const SCRIPT = processScript('pdfReader');
/** A hostile file must not hold up the others. */
const LIMITS = { timeMs: 60_000, memoryMb: 1200 };
/** A picture is worth less waiting. */
const PICTURE_LIMITS = { timeMs: 15_000, memoryMb: 1200 };

/** Reads PDFs in processes of their own, so that no file can block or crash the server, or keep others waiting. */
@Injectable()
export class PdfReader implements OnApplicationBootstrap, OnModuleDestroy {
  private readonly documents: Pool = new ReaderPool(SCRIPT, LIMITS, Math.max(3, availableParallelism()));
  private readonly pictures: Pool = new ReaderPool(SCRIPT, PICTURE_LIMITS, 2);

  /**
   * How many pages there are, and displayed sizes of those that `pages` names, such as `1-3,7`; of all where it is empty.
   * Throws PdfError, or the signal's reason when aborted.
   */
  sizes(
    path: string,
    wanted: { pages: string; maxPages: number },
    options: PdfTaskOptions,
  ): Promise<Answer<'sizes'>> {
    return read<'sizes'>(this.documents, { kind: 'sizes', path, ...wanted }, options);
  }

  /** How many pages there are. Throws as `sizes`. */
  async count(path: string, options: PdfTaskOptions): Promise<number> {
    return (await read<'count'>(this.documents, { kind: 'count', path }, options)).count;
  }

  /** The characters in the text of the first `pages` pages, each once. Throws as `sizes`. */
  async letters(path: string, pages: number, options: PdfTaskOptions): Promise<string> {
    return (await read<'letters'>(this.documents, { kind: 'letters', path, pages }, options)).letters;
  }

  /** What each page says. Throws as `sizes`. */
  async words(path: string, options: PdfTaskOptions): Promise<string[]> {
    return (await read<'words'>(this.documents, { kind: 'words', path }, options)).pages;
  }

  /** A picture of a page, for `owner`. Throws PdfError. */
  async picture(path: string, wish: PictureWish, owner: string): Promise<Uint8Array> {
    return (await read<'picture'>(this.pictures, { kind: 'picture', path, ...wish }, { owner })).bytes;
  }

  /** Starts a process ahead of the first document. */
  onApplicationBootstrap(): void {
    this.documents.warmUp();
  }

  onModuleDestroy(): void {
    this.documents.stop();
    this.pictures.stop();
  }
}

async function read<Kind extends PdfTask['kind']>(
  pool: Pool,
  task: PdfTask & { kind: Kind },
  { onProgress, ...turn }: PdfTaskOptions,
): Promise<Answer<Kind>> {
  const onNote = ({ done, total }: PdfProgress) => onProgress?.(done, total);
  try {
    return (await pool.run(task, { ...turn, onNote })) as Answer<Kind>;
  } catch (error) {
    if (error instanceof LimitError)
      throw new PdfError({ fault: error.why === 'slow' ? 'too-slow' : 'damaged' });
    throw isFailure(error) ? new PdfError(error) : error;
  }
}

function isFailure(error: unknown): error is PdfFailure {
  return typeof error === 'object' && error !== null && 'fault' in error;
}
