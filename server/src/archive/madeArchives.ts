import type { OnModuleDestroy } from '@nestjs/common';
import { Injectable, Logger } from '@nestjs/common';
import { randomUUID } from 'node:crypto';
import { logFailure } from '../http/failures.js';
import { notFound } from '../http/problem.js';
import { Leases } from '../processes/leases.js';
import type { MadeArchive } from './archiveMaking.service.js';

/** How long an archive waits to be fetched. */
const WAITS_MS = 10 * 60_000;

interface Waiting {
  made: MadeArchive;
  teacherId: string;
  lesson: string;
  timer: NodeJS.Timeout;
}

/** Archives that were made and are yet to be fetched, each once. */
@Injectable()
export class MadeArchives implements OnModuleDestroy {
  private readonly logger = new Logger('Archives');
  private readonly waiting = new Map<string, Waiting>();
  /** Lessons of which archives are being made, each as often as that. */
  private readonly making: string[] = [];

  constructor(leases: Leases) {
    // They are here and nowhere else, so whoever fetches one has to come here.
    leases.useWhile(
      (lesson) =>
        this.making.includes(lesson) || [...this.waiting.values()].some((one) => one.lesson === lesson),
    );
  }

  onModuleDestroy(): void {
    // Their files lie among what comes in, and go at the next start.
    for (const { timer } of this.waiting.values()) clearTimeout(timer);
  }

  /** Makes an archive of a lesson. Returns the id under which its teacher can fetch it. */
  async keep(teacherId: string, lesson: string, make: () => Promise<MadeArchive>): Promise<string> {
    this.making.push(lesson);
    try {
      return this.keepMade(teacherId, lesson, await make());
    } finally {
      this.making.splice(this.making.indexOf(lesson), 1);
    }
  }

  private keepMade(teacherId: string, lesson: string, made: MadeArchive): string {
    const id = randomUUID();
    const timer = setTimeout(() => {
      this.waiting.delete(id);
      made
        .remove()
        .catch((error: unknown) => logFailure(this.logger, 'An archive could not be removed', error));
    }, WAITS_MS).unref();
    this.waiting.set(id, { made, teacherId, lesson, timer });
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
