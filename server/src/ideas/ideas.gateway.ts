import { Logger, UseFilters, UsePipes } from '@nestjs/common';
import {
  ConnectedSocket,
  MessageBody,
  SubscribeMessage,
  WebSocketGateway,
  WebSocketServer,
} from '@nestjs/websockets';
import type { VotedMessage, VotesReply } from '@doodla/core';
import { LIVE, Refusal } from '@doodla/core';
import type { Server } from 'socket.io';
import { logFailure } from '../http/failures.js';
import { AccessService } from '../live/access.service.js';
import { ClassesService } from '../live/classes.service.js';
import { FailureFilter } from '../live/failure.filter.js';
import type { LiveSocket } from '../live/liveSocket.js';
import { audienceRoom, GATEWAY, liveValidation } from '../live/liveSocket.js';
import { Soon } from '../live/soon.js';
import { SittingsService } from '../sittings/sittings.service.js';
import { ArrangingService } from './arranging.service.js';
import { IdeasDto, VoteDto } from './ideas.dto.js';
import { VotesService } from './votes.service.js';

/** Votes that come within this time are told together, milliseconds. */
const SOON_MS = 100;

/** Collecting ideas on a page, and voting on them. */
@WebSocketGateway(GATEWAY)
@UsePipes(liveValidation)
@UseFilters(FailureFilter)
export class IdeasGateway {
  @WebSocketServer() private readonly server: Server;
  private readonly logger = new Logger('Ideas');
  private readonly soon = new Soon(SOON_MS, (error) =>
    logFailure(this.logger, 'Nobody could be told how votes stand', error),
  );

  constructor(
    private readonly access: AccessService,
    private readonly classes: ClassesService,
    private readonly sittings: SittingsService,
    private readonly votes: VotesService,
    private readonly arranging: ArrangingService,
  ) {}

  @SubscribeMessage(LIVE.ideas)
  async ideas(
    @ConnectedSocket() socket: LiveSocket,
    @MessageBody() { sitting, set }: IdeasDto,
  ): Promise<object> {
    await this.access.teaches(sitting, socket.data.visitor);
    await this.classes.setIdeas(sitting, set);
    for (const page of Object.keys(set)) {
      this.arranging.arrangeSoon(sitting, page);
      this.tellSoon(sitting, page);
    }
    return {};
  }

  @SubscribeMessage(LIVE.vote)
  async vote(
    @ConnectedSocket() { data: { visitor, budget } }: LiveSocket,
    @MessageBody() { sitting, page, note, up }: VoteDto,
  ): Promise<VotesReply> {
    if (!budget.submits.take()) throw new Refusal('too-fast');
    const { actor } = await this.access.to({ kind: 'sitting', id: sitting }, visitor);
    const student = actor.role === 'student' ? actor.id : undefined;
    if (student !== undefined && note !== undefined && up !== undefined) {
      await this.votes.vote(sitting, page, student, note, up);
      this.tellSoon(sitting, page);
    }
    const seesAll = student === undefined || (await this.isCounted(sitting, page));
    return this.votes.standFor(sitting, page, { student, seesAll });
  }

  private tellSoon(sitting: string, page: string): void {
    this.soon.run(`${sitting} ${page}`, () => this.tell(sitting, page));
  }

  private async tell(sitting: string, page: string): Promise<void> {
    const rules = (await this.sittings.find(sitting))?.ideas?.[page];
    const counts = Object.fromEntries(await this.votes.counts(sitting, page));
    const message: VotedMessage = { sitting, page, counts };
    this.server.local.to(audienceRoom(sitting, 'teacher')).emit(LIVE.voted, message);
    if (rules?.counted) this.server.local.to(audienceRoom(sitting, 'students')).emit(LIVE.voted, message);
    if (rules?.sorted) this.arranging.arrangeSoon(sitting, page);
  }

  private async isCounted(sitting: string, page: string): Promise<boolean> {
    return (await this.sittings.find(sitting))?.ideas?.[page]?.counted ?? false;
  }
}
