import type { OnModuleInit } from '@nestjs/common';
import { Injectable, Logger } from '@nestjs/common';
import { arrangeChanges } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import { logFailure } from '../http/failures.js';
import type { FreshOperation } from '../live/logs.service.js';
import { LogsService, SERVER } from '../live/logs.service.js';
import { Soon } from '../live/soon.js';
import { SittingsService } from '../sittings/sittings.service.js';
import { VotesService } from './votes.service.js';

/** What comes within this time is arranged at once, milliseconds. */
const SOON_MS = 80;

/**
 * Sees to it that the notes of a page on which ideas are collected stand side by side. The server does it, since two who put
 * a note into the same group at the same time cannot know of each other.
 */
@Injectable()
export class ArrangingService implements OnModuleInit {
  private readonly logger = new Logger('Ideas');
  private readonly soon = new Soon(SOON_MS, (error) => this.failed(error));

  constructor(
    private readonly logs: LogsService,
    private readonly sittings: SittingsService,
    private readonly votes: VotesService,
  ) {}

  onModuleInit(): void {
    this.logs.onAppended((log, fresh) => {
      this.follow(log, fresh).catch((error: unknown) => this.failed(error));
    });
  }

  /** Arranges a page in a moment, together with what else comes until then. */
  arrangeSoon(sittingId: string, page: string): void {
    this.soon.run(`${sittingId} ${page}`, () => this.arrange(sittingId, page));
  }

  private async follow(log: string, { logged, known }: FreshOperation): Promise<void> {
    if (logged.author === SERVER) return;
    const ideas = (await this.sittings.find(log))?.ideas;
    if (!ideas) return;
    for (const change of logged.operation.changes) {
      if (!('mark' in change)) continue;
      const page = (change.do === 'add' ? change.mark : known(change.mark))?.page;
      if (page !== undefined && ideas[page]) this.arrangeSoon(log, page);
    }
  }

  private async arrange(sittingId: string, pageId: string): Promise<void> {
    const rules = (await this.sittings.find(sittingId))?.ideas?.[pageId];
    const log = await this.logs.open(sittingId);
    const page = log.pages.get(pageId);
    if (!rules || !page || page.removed) return;
    const counts = rules.sorted ? await this.votes.counts(sittingId, pageId) : undefined;
    const marks = [...(await log.marksOn(pageId)).values()];
    const changes = arrangeChanges(marks, page, counts);
    if (changes.length > 0) await this.logs.append(sittingId, SERVER, { id: randomUUID(), changes });
  }

  private failed(error: unknown): void {
    logFailure(this.logger, 'Ideas could not be arranged', error);
  }
}
