import type { OnApplicationBootstrap, OnModuleDestroy } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import { LimitedWorker, LimitError } from '../reading/limitedWorker.js';
import type { PdfAnswer, PdfFault, PdfProgress, PdfTask } from './pdfTask.js';

/** Thrown where a PDF cannot be used. */
export class PdfError extends Error {
  constructor(readonly fault: PdfFault) {
    super(fault);
    this.name = 'PdfError';
  }
}

export interface PdfTaskOptions {
  onProgress?(done: number, total: number): void;
  signal?: AbortSignal;
}

const SCRIPT = new URL('./pdfReader.worker.js', import.meta.url);
/** A hostile file must not hold up the others. */
const LIMITS = { timeMs: 60_000, memoryMb: 1024 };

/** Reads PDFs in a worker thread, one after the other, so that no file can block or crash the server. */
@Injectable()
export class PdfReader implements OnApplicationBootstrap, OnModuleDestroy {
  private readonly worker = new LimitedWorker<PdfTask, PdfAnswer, PdfProgress>(SCRIPT, LIMITS);

  /** Displayed page sizes in page units. Throws PdfError, or the signal's reason when aborted. */
  async sizes(
    path: string,
    maxPages: number,
    options: PdfTaskOptions = {},
  ): Promise<{ width: number; height: number }[]> {
    const answer = await this.run({ kind: 'sizes', path, maxPages }, options);
    if (answer.kind !== 'sizes') throw new PdfError('damaged');
    return answer.pages;
  }

  /** A PNG of the first page, `width` pixels wide. Throws PdfError. */
  async cover(path: string, width: number): Promise<Uint8Array> {
    const answer = await this.run({ kind: 'cover', path, width }, {});
    if (answer.kind !== 'cover') throw new PdfError('damaged');
    return answer.png;
  }

  /** Starts the worker ahead of the first document. */
  onApplicationBootstrap(): void {
    this.worker.warmUp();
  }

  async onModuleDestroy(): Promise<void> {
    await this.worker.stop();
  }

  private async run(task: PdfTask, { onProgress, signal }: PdfTaskOptions): Promise<PdfAnswer> {
    const onNote = ({ done, total }: PdfProgress) => onProgress?.(done, total);
    try {
      return await this.worker.run(task, { onNote, signal });
    } catch (error) {
      if (error instanceof LimitError) throw new PdfError(error.why === 'slow' ? 'too-slow' : 'damaged');
      throw typeof error === 'string' ? new PdfError(error as PdfFault) : error;
    }
  }
}
