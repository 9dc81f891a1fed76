import type { OnApplicationBootstrap, OnModuleDestroy } from '@nestjs/common';
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
export class PdfReader implements OnApplicationBootstrap, OnModuleDestroy {
  private worker: Worker | undefined;
  private queue: Promise<unknown> = Promise.resolve();

  /** Displayed page sizes in page units. Throws PdfError, or the signal's reason when aborted. */
  async sizes(
    path: string,
    maxPages: number,
    options: PdfTaskOptions = {},
  ): Promise<{ width: number; height: number }[]> {
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

  /** Starts the worker ahead of the first document. */
  onApplicationBootstrap(): void {
    this.worker = this.start();
  }

  async onModuleDestroy(): Promise<void> {
    await this.worker?.terminate();
  }

  private enqueue(task: PdfTask, options: PdfTaskOptions): Promise<PdfAnswer> {
    const result = this.queue.then(() => this.run(task, options));
    this.queue = result.catch(() => undefined);
    return result;
  }

  private async run(task: PdfTask, { onProgress, signal }: PdfTaskOptions): Promise<PdfAnswer> {
    signal?.throwIfAborted();
    const worker = (this.worker ??= this.start());
    const listeners = new AbortController();
    try {
      return await new Promise<PdfAnswer>((resolve, reject) => {
        const stop = (reason: unknown) => {
          this.worker = undefined;
          void worker.terminate();
          reject(reason);
        };
        const timer = setTimeout(() => stop(new PdfError('too-slow')), TIME_LIMIT_MS);
        const abort = () => stop(signal!.reason);
        const crash = () => reject(new PdfError('damaged'));
        const listen = (answer: PdfAnswer) => {
          if (answer.kind === 'progress') onProgress?.(answer.done, answer.total);
          else if (answer.kind === 'failed') reject(new PdfError(answer.fault));
          else resolve(answer);
        };
        worker.on('message', listen).on('exit', crash);
        signal?.addEventListener('abort', abort);
        listeners.signal.addEventListener('abort', () => {
          clearTimeout(timer);
          worker.off('message', listen).off('exit', crash);
          signal?.removeEventListener('abort', abort);
        });
        worker.postMessage(task);
      });
    } finally {
      listeners.abort();
    }
  }

  private start(): Worker {
    const worker = new Worker(new URL('./pdfReader.worker.js', import.meta.url), {
      resourceLimits: { maxOldGenerationSizeMb: 1024 },
    });
    const forget = () => {
      if (this.worker === worker) this.worker = undefined;
    };
    // A file that crashes the worker must not take the server with it.
    worker.on('error', forget).on('exit', forget);
    worker.unref();
    return worker;
  }
}
