import type { OnModuleDestroy } from '@nestjs/common';
import { Injectable, Logger } from '@nestjs/common';
import { randomUUID } from 'node:crypto';
import { logFailure } from '../http/failures.js';
import { notFound } from '../http/problem.js';
import type { MadeArchive } from './archiveMaking.service.js';

/** How long an archive waits to be fetched. */
const WAITS_MS = 10 * 60_000;

interface Waiting {
  made: MadeArchive;
  teacherId: string;
  timer: NodeJS.Timeout;
}

/** Archives that were made and are yet to be fetched, each once. */
@Injectable()
export class MadeArchives implements OnModuleDestroy {
  private readonly logger = new Logger('Archives');
  private readonly waiting = new Map<string, Waiting>();

  onModuleDestroy(): void {
    // Their files lie among what comes in, and go at the next start.
    for (const { timer } of this.waiting.values()) clearTimeout(timer);
  }

  /** Returns the id under which its teacher can fetch it. */
  keep(teacherId: string, made: MadeArchive): string {
    const id = randomUUID();
    const timer = setTimeout(() => {
      this.waiting.delete(id);
      made
        .remove()
        .catch((error: unknown) => logFailure(this.logger, 'An archive could not be removed', error));
    }, WAITS_MS).unref();
    this.waiting.set(id, { made, teacherId, timer });
    return id;
  }

  /** Whoever takes it removes it. Throws Problem where it is not there, or not the teacher's. */
  take(teacherId: string, id: string): MadeArchive {
    const found = this.waiting.get(id);
    if (found?.teacherId !== teacherId) throw notFound('This archive');
    clearTimeout(found.timer);
    this.waiting.delete(id);
    return found.made;
  }
}
