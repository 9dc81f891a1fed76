import { Logger } from '@nestjs/common';
import type { Job } from 'bullmq';
import { Queue, QueueEvents, Worker } from 'bullmq';
import type { Redis } from 'ioredis';
import { hostname } from 'node:os';
import { logFailure } from '../http/failures.js';
import { redisLine } from '../processes/redis.js';
import type { TurnOptions } from '../reading/fairTurns.js';
import type { DocumentKind } from './documentKind.js';

/** A stored document that is to be turned into pages, and whose it is. */
export interface Conversion {
  sha256: string;
  kind: DocumentKind;
  owner: string;
}

/** What became of it: the stored PDF, or why there is none, as a Problem says it. */
export type Converted = { pdf: string } | { refused: { status: number; code: string; message: string } };

interface Options {
  /** Redis, and what this installation calls its own there. */
  url: string;
  namespace: string;
  /** How many this process does at once. */
  places: number;
  /** Longest that one may take with all that comes before it, milliseconds. */
  patienceMs: number;
  work(task: Conversion, signal: AbortSignal): Promise<Converted>;
}

const NAME = 'doodla-conversions';
const REMEMBERED = 50;
/** Longest that Redis is waited for. */
const ADD_MS = 3000;
const LOOK_MS = 1000;

/** The queue could not take it. */
export class QueueAwayError extends Error {
  override name = 'QueueAwayError';
}

/** Documents that wait to be turned into pages by whichever process is free, in a queue in Redis. */
export class ConversionQueue {
  private readonly logger = new Logger('Conversions');
  private readonly lines: Redis[] = [];
  private readonly queue: Queue<Conversion, Converted>;
  private readonly worker: Worker<Conversion, Converted>;
  private readonly events: QueueEvents;
  private readonly cancelled: string;
  /** What this process is doing, by job. */
  private readonly running = new Map<string, AbortController>();
  /** How many each has under way that came in here: whoever has the fewest goes first. */
  private readonly underWay = new Map<string, number>();

  constructor(private readonly options: Options) {
    const prefix = options.namespace;
    this.queue = new Queue(NAME, { connection: this.line(), prefix });
    this.events = new QueueEvents(NAME, { connection: this.line(), prefix });
    this.worker = new Worker(NAME, (job) => this.work(job), {
      connection: this.line(),
      prefix,
      concurrency: options.places,
      name: `${hostname()} ${process.pid}`,
    });
    this.cancelled = `${prefix}:cancelled`;
    const heard = this.line();
    heard
      .subscribe(this.cancelled)
      .catch((error: unknown) => logFailure(this.logger, 'Redis was lost', error));
    heard.on('message', (_, id: string) => this.running.get(id)?.abort());
    // They go on by themselves once Redis is there again, which has been told by the line.
    for (const one of [this.queue, this.events, this.worker] as NodeJS.EventEmitter[])
      one.on('error', () => undefined);
  }

  async close(): Promise<void> {
    for (const running of this.running.values()) running.abort();
    await this.worker.close();
    await this.events.close();
    await this.queue.close();
    for (const line of this.lines) line.disconnect();
  }

  /** How many wait. */
  async waiting(): Promise<number> {
    const { waiting = 0, prioritized = 0 } = await this.queue.getJobCounts('waiting', 'prioritized');
    return waiting + prioritized;
  }

  /** Rejects with QueueAwayError where Redis does not answer, with the signal's reason where it is cancelled. */
  async run(task: Conversion, { onWaiting, signal }: Omit<TurnOptions, 'owner'>): Promise<Converted> {
    const own = (this.underWay.get(task.owner) ?? 0) + 1;
    this.underWay.set(task.owner, own);
    try {
      const job = await this.add(task, own);
      return await this.follow(job, onWaiting ?? (() => undefined), signal);
    } finally {
      const left = this.underWay.get(task.owner)! - 1;
      if (left === 0) this.underWay.delete(task.owner);
      else this.underWay.set(task.owner, left);
    }
  }

  private async add(task: Conversion, priority: number): Promise<Job<Conversion, Converted>> {
    const adding = this.queue.add(NAME, task, {
      priority,
      removeOnComplete: REMEMBERED,
      removeOnFail: REMEMBERED,
    });
    let timer: NodeJS.Timeout | undefined;
    const late = new Promise<never>((_, reject) => {
      timer = setTimeout(() => reject(new QueueAwayError()), ADD_MS);
    });
    return Promise.race([adding, late])
      .catch((error: unknown) => {
        // What is taken too late is done by nobody; where it was not even taken, there is nothing to take back.
        adding.then((job) => this.cancel(job)).catch(() => undefined);
        throw error;
      })
      .finally(() => clearTimeout(timer));
  }

  private async follow(
    job: Job<Conversion, Converted>,
    tell: (before: number) => void,
    signal: AbortSignal | undefined,
  ): Promise<Converted> {
    const looking = setInterval(() => {
      this.waiting().then(tell, () => undefined); // How many wait is told if it is known.
    }, LOOK_MS);
    const ended = job.waitUntilFinished(this.events, this.options.patienceMs);
    try {
      if (!signal) return await ended;
      const aborted = new Promise<never>((_, reject) => {
        signal.addEventListener('abort', () => reject(signal.reason as Error), { once: true });
      });
      signal.throwIfAborted();
      return await Promise.race([ended, aborted]);
    } catch (error) {
      ended.catch(() => undefined); // Told already.
      await this.cancel(job);
      throw error;
    } finally {
      clearInterval(looking);
    }
  }

  private async cancel(job: Job<Conversion, Converted>): Promise<void> {
    // One that has begun cannot be taken out; whoever does it is told.
    await job.remove().catch(() => undefined);
    await this.lines[0]!.publish(this.cancelled, job.id!);
  }

  private async work({ id, data }: Job<Conversion, Converted>): Promise<Converted> {
    const running = new AbortController();
    this.running.set(id!, running);
    try {
      return await this.options.work(data, running.signal);
    } finally {
      this.running.delete(id!);
    }
  }

  private line(): Redis {
    const line = redisLine(this.options.url, true);
    this.lines.push(line);
    return line;
  }
}
