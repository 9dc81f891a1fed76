import type { OnModuleDestroy } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import { Worker } from 'node:worker_threads';
import type { PdfAnswer, PdfFault, PdfTask } from './pdfTask.js';

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

/** Longest a document may take to be read; a hostile file must not hold up the others. */
const TIME_LIMIT_MS = 60_000;

/** Reads PDFs in a worker thread, one after the other, so that no file can block or crash the server. */
@Injectable()
export class PdfReader implements OnModuleDestroy {
  private worker: Worker | undefined;
  private queue: Promise<unknown> = Promise.resolve();

  /** Displayed page sizes in page units. Throws PdfError, or the signal's reason when aborted. */
  async sizes(path: string, maxPages: number, options: PdfTaskOptions = {}): Promise<{ width: number; height: number }[]> {
    const answer = await this.enqueue({ kind: 'sizes', path, maxPages }, options);
    if (answer.kind !== 'sizes') throw new PdfError('damaged');
    return answer.pages;
  }

  /** A PNG of the first page, `width` pixels wide. Throws PdfError. */
  async cover(path: string, width: number): Promise<Uint8Array> {
    const answer = await this.enqueue({ kind: 'cover', path, width }, {});
    if (answer.kind !== 'cover') throw new PdfError('damaged');
    return answer.png;
  }

  async onModuleDestroy(): Promise<void> {
    await this.worker?.terminate();
  }

  private enqueue(task: PdfTask, options: PdfTaskOptions): Promise<PdfAnswer> {
    const result = this.queue.then(() => this.run(task, options));
    this.queue = result.catch(() => undefined);
    return result;
  }

  private run(task: PdfTask, { onProgress, signal }: PdfTaskOptions): Promise<PdfAnswer> {
    const worker = (this.worker ??= this.start());
    return new Promise<PdfAnswer>((resolve, reject) => {
      const stop = (reason: unknown) => {
        this.worker = undefined;
        void worker.terminate();
        reject(reason);
      };
      const timer = setTimeout(() => stop(new PdfError('too-slow')), TIME_LIMIT_MS);
      const abort = () => stop(signal!.reason);
      const crash = () => stop(new PdfError('damaged'));
      const listen = (answer: PdfAnswer) => {
        if (answer.kind === 'progress') return onProgress?.(answer.done, answer.total);
        if (answer.kind === 'failed') reject(new PdfError(answer.fault));
        else resolve(answer);
      };
      worker.on('message', listen).on('error', crash);
      signal?.addEventListener('abort', abort);
      const cleanUp = () => {
        clearTimeout(timer);
        worker.off('message', listen).off('error', crash);
        signal?.removeEventListener('abort', abort);
      };
      const settle = { resolve, reject };
      resolve = (value) => (cleanUp(), settle.resolve(value));
      reject = (reason) => (cleanUp(), settle.reject(reason));
      if (signal?.aborted) abort();
      else worker.postMessage(task);
    });
  }

  private start(): Worker {
    const worker = new Worker(new URL('./pdfReader.worker.js', import.meta.url), {
      resourceLimits: { maxOldGenerationSizeMb: 1024 },
    });
    worker.unref();
    return worker;
  }
}
