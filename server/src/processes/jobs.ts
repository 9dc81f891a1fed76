import type { OnApplicationBootstrap, OnModuleDestroy } from '@nestjs/common';
import { Injectable, Logger } from '@nestjs/common';
import { Queue, Worker } from 'bullmq';
import { logFailure } from '../http/failures.js';
import { Settings } from '../settings/settings.js';
import { namespaceOf, redisLine } from './redis.js';

const QUEUE = 'doodla-jobs';
/** Done jobs that are remembered, so that the queue does not grow. */
const REMEMBERED = 100;

interface Job {
  everyMs: number;
  work: () => Promise<void>;
}

/** What is done again and again: by one process at a time, whichever is free, by a queue in Redis where there are several. */
@Injectable()
export class Jobs implements OnApplicationBootstrap, OnModuleDestroy {
  private readonly logger = new Logger('Jobs');
  private readonly jobs = new Map<string, Job>();
  private readonly own = new Set<string>();
  private readonly ends: (() => Promise<unknown>)[] = [];
  private queue: Queue | undefined;

  constructor(private readonly settings: Settings) {}

  /** To be called before the application starts. What fails is tried again the next time. */
  every(name: string, everyMs: number, work: () => Promise<void>): void {
    this.jobs.set(name, { everyMs, work });
  }

  /** As `every`, by each process for itself. */
  everywhere(name: string, everyMs: number, work: () => Promise<void>): void {
    this.own.add(name);
    this.every(name, everyMs, work);
  }

  /** How many wait for a process; those for their time do not. */
  async waiting(): Promise<number> {
    return (await this.queue?.getWaitingCount()) ?? 0;
  }

  async onApplicationBootstrap(): Promise<void> {
    const { redis, database } = this.settings;
    if (redis !== undefined) await this.share(redis, namespaceOf(database));
    for (const [name, { everyMs }] of this.jobs) {
      if (redis !== undefined && !this.own.has(name)) continue;
      await this.run(name);
      const timer = setInterval(() => void this.run(name), everyMs).unref();
      this.ends.push(() => Promise.resolve(clearInterval(timer)));
    }
  }

  async onModuleDestroy(): Promise<void> {
    for (const end of this.ends) await end();
  }

  private async share(url: string, prefix: string): Promise<void> {
    const connection = redisLine(url, true);
    const queue = (this.queue = new Queue(QUEUE, {
      connection,
      prefix,
      defaultJobOptions: { removeOnComplete: REMEMBERED, removeOnFail: REMEMBERED },
    }));
    const blocking = redisLine(url, true);
    const worker = new Worker(QUEUE, ({ name }) => this.run(name), { connection: blocking, prefix });
    // It goes on by itself once Redis is there again, which has been told by the line.
    queue.on('error', () => undefined);
    worker.on('error', () => undefined);
    this.ends.push(
      () => worker.close(),
      () => queue.close(),
      () => Promise.resolve([connection, blocking].forEach((line) => line.disconnect())),
    );
    for (const [name, { everyMs }] of this.jobs)
      if (!this.own.has(name)) await queue.upsertJobScheduler(name, { every: everyMs }, { name });
  }

  private async run(name: string): Promise<void> {
    try {
      await this.jobs.get(name)?.work();
    } catch (error) {
      logFailure(this.logger, `“${name}” could not be done; it is tried again the next time`, error);
    }
  }
}
