import type { OnModuleDestroy } from '@nestjs/common';
import { Logger, UseFilters, UsePipes } from '@nestjs/common';
import { ConnectedSocket, MessageBody, SubscribeMessage, WebSocketGateway } from '@nestjs/websockets';
import { LIVE } from '@doodla/core';
import { logFailure } from '../http/failures.js';
import { AccessService } from '../live/access.service.js';
import { ClassesService } from '../live/classes.service.js';
import { FailureFilter } from '../live/failure.filter.js';
import type { LiveSocket } from '../live/liveSocket.js';
import { GATEWAY, liveValidation } from '../live/liveSocket.js';
import { SchoolsService } from '../schools/schools.service.js';
import { RecordingDto } from './explanations.dto.js';

/** How long the sign stays without a word of whoever records; a lost connection is no reason to take it away sooner. */
export const LIGHT_MS = 60_000;

/** The sign that everybody in a class sees while it is being recorded. Not stored: who records says so again and again. */
@WebSocketGateway(GATEWAY)
@UsePipes(liveValidation)
@UseFilters(FailureFilter)
export class RecordingGateway implements OnModuleDestroy {
  private readonly logger = new Logger('Recording');
  private readonly ends = new Map<string, NodeJS.Timeout>();

  constructor(
    private readonly access: AccessService,
    private readonly classes: ClassesService,
    private readonly schools: SchoolsService,
  ) {}

  onModuleDestroy(): void {
    for (const timer of this.ends.values()) clearTimeout(timer);
  }

  @SubscribeMessage(LIVE.recording)
  async recording(
    @ConnectedSocket() socket: LiveSocket,
    @MessageBody() { sitting, on }: RecordingDto,
  ): Promise<object> {
    await this.access.teaches(sitting, socket.data.visitor);
    clearTimeout(this.ends.get(sitting));
    this.ends.delete(sitting);
    if (on) this.ends.set(sitting, setTimeout(() => this.forget(sitting), LIGHT_MS).unref());
    const { tellOfRecording } = await this.schools.limitsOfSitting(sitting);
    this.classes.setRecording(sitting, on ? { told: tellOfRecording } : null);
    await this.classes.announce(sitting);
    return {};
  }

  private forget(sitting: string): void {
    this.ends.delete(sitting);
    this.classes.setRecording(sitting, null);
    this.classes
      .announce(sitting)
      .catch((error: unknown) =>
        logFailure(this.logger, 'Nobody could be told that a class is not recorded any more', error),
      );
  }
}
