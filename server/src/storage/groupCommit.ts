import type { Database } from 'better-sqlite3';

interface Job {
  write(): void;
  resolve(): void;
  reject(error: unknown): void;
}

/** How long another connection may hold the database before a write is given up. */
const GIVE_UP_MS = 5000;
const RETRY_MS = 5;

/**
 * Writes that came in together are committed together, with one sync to the disk for all of them. Each is
 * whole or not at all, whatever becomes of the others.
 */
export class GroupCommit {
  private waiting: Job[] = [];
  private planned = false;

  constructor(private readonly database: Database) {}

  /** Resolves once the write is on the disk. Rejects with the database's error. */
  run(write: () => void): Promise<void> {
    return new Promise((resolve, reject) => {
      this.waiting.push({ write, resolve, reject });
      this.plan(() => setImmediate(() => this.flush(Date.now())));
    });
  }

  private plan(start: () => unknown): void {
    if (this.planned) return;
    this.planned = true;
    start();
  }

  private flush(since: number): void {
    this.planned = false;
    const jobs = this.waiting;
    this.waiting = [];
    const failed = new Map<Job, unknown>();
    try {
      this.database
        .transaction(() => {
          for (const job of jobs) {
            try {
              this.database.transaction(job.write)();
            } catch (error) {
              if (!this.database.inTransaction) throw error;
              failed.set(job, error);
            }
          }
        })
        .immediate();
    } catch (error) {
      if (isBusy(error) && Date.now() - since < GIVE_UP_MS) {
        this.waiting = [...jobs, ...this.waiting];
        this.plan(() => setTimeout(() => this.flush(since), RETRY_MS));
        return;
      }
      for (const job of jobs) job.reject(error);
      return;
    }
    for (const job of jobs) {
      if (failed.has(job)) job.reject(failed.get(job));
      else job.resolve();
    }
  }
}

/** Another connection is writing just now (SQLite result code SQLITE_BUSY). */
export function isBusy(error: unknown): boolean {
  return (error as { code?: string }).code?.startsWith('SQLITE_BUSY') === true;
}
