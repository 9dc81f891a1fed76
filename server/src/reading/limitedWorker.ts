import { Worker } from 'node:worker_threads';

/** What a worker says of the task that it was given. */
export type FromWorker<Answer, Note> = { done: Answer } | { failed: unknown } | { note: Note };

export interface WorkerLimits {
  /** Longest that a task may take, milliseconds. */
  timeMs: number;
  memoryMb: number;
}

interface RunOptions<Note> {
  /** Told what the worker says while it works; what it returns or resolves to is sent back. */
  onNote?(note: Note): unknown;
  signal?: AbortSignal | undefined;
}

/** Thrown where a task took too long, or more memory than it may, or crashed its worker. */
export class LimitError extends Error {
  override name = 'LimitError';

  constructor(readonly why: 'slow' | 'crashed') {
    super(`The worker was ended: ${why}`);
  }
}

/**
 * A worker thread that does tasks with strangers' files one after the other. Whatever a file does to it, it is
 * ended at its limits and started anew, and the server goes on.
 */
export class LimitedWorker<Task, Answer, Note = never> {
  private worker: Worker | undefined;
  private queue: Promise<unknown> = Promise.resolve();

  constructor(
    private readonly script: URL,
    private readonly limits: WorkerLimits,
  ) {}

  /** Starts the thread ahead of the first task. */
  warmUp(): void {
    this.worker ??= this.start();
  }

  async stop(): Promise<void> {
    await this.worker?.terminate();
  }

  /** Rejects with LimitError, with what the worker says has failed, or with the signal's reason. */
  run(task: Task, options: RunOptions<Note> = {}): Promise<Answer> {
    const result = this.queue.then(() => this.runNow(task, options));
    this.queue = result.catch(() => undefined); // Whoever asked for it hears of its failure.
    return result;
  }

  private async runNow(task: Task, { onNote, signal }: RunOptions<Note>): Promise<Answer> {
    signal?.throwIfAborted();
    const worker = (this.worker ??= this.start());
    const listeners = new AbortController();
    try {
      return await new Promise<Answer>((resolve, reject) => {
        const end = (reason: unknown) => {
          this.worker = undefined;
          worker.terminate().catch(() => undefined); // It is gone already.
          reject(reason);
        };
        const timer = setTimeout(() => end(new LimitError('slow')), this.limits.timeMs);
        const abort = () => end(signal!.reason);
        const crash = () => end(new LimitError('crashed'));
        const reply = async (note: Note) => worker.postMessage({ reply: await onNote?.(note) });
        const listen = (message: FromWorker<Answer, Note>) => {
          if ('done' in message) resolve(message.done);
          else if ('failed' in message) reject(message.failed);
          else reply(message.note).catch(end);
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
    const worker = new Worker(this.script, {
      resourceLimits: { maxOldGenerationSizeMb: this.limits.memoryMb },
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
