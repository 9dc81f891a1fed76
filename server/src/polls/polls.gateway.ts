import { UseFilters, UsePipes } from '@nestjs/common';
import {
  ConnectedSocket,
  MessageBody,
  SubscribeMessage,
  WebSocketGateway,
  WebSocketServer,
} from '@nestjs/websockets';
import type { ReactedMessage } from '@doodla/core';
import { LIVE, Refusal } from '@doodla/core';
import type { Server } from 'socket.io';
import { Problem } from '../http/problem.js';
import { AccessService } from '../live/access.service.js';
import { ClassesService } from '../live/classes.service.js';
import { FailureFilter } from '../live/failure.filter.js';
import type { LiveSocket } from '../live/liveSocket.js';
import { audienceRoom, GATEWAY, liveValidation } from '../live/liveSocket.js';
import { AnswerDto, AskDto, HandDto, PollDto, ReactDto } from './polls.dto.js';
import { PollsService } from './polls.service.js';

/** Asking a class, and what students say without words: hands and reactions. */
@WebSocketGateway(GATEWAY)
@UsePipes(liveValidation)
@UseFilters(FailureFilter)
export class PollsGateway {
  @WebSocketServer() private readonly server: Server;

  constructor(
    private readonly access: AccessService,
    private readonly polls: PollsService,
    private readonly classes: ClassesService,
  ) {}

  @SubscribeMessage(LIVE.ask)
  async ask(
    @ConnectedSocket() socket: LiveSocket,
    @MessageBody() { sitting, poll }: AskDto,
  ): Promise<object> {
    await this.access.teaches(sitting, socket.data.visitor);
    await this.polls.ask(sitting, poll);
    await this.classes.announce(sitting);
    return {};
  }

  @SubscribeMessage(LIVE.poll)
  async change(@ConnectedSocket() socket: LiveSocket, @MessageBody() dto: PollDto): Promise<object> {
    await this.access.teaches(dto.sitting, socket.data.visitor);
    await this.polls.change(dto.sitting, dto.poll, dto);
    await this.classes.announce(dto.sitting);
    return {};
  }

  @SubscribeMessage(LIVE.answer)
  async answer(
    @ConnectedSocket() socket: LiveSocket,
    @MessageBody() { sitting, poll, value }: AnswerDto,
  ): Promise<object> {
    const student = this.studentOf(socket, sitting);
    await this.polls.answer(sitting, poll, student, value);
    // A whole class answers at once.
    this.classes.announceSoon(sitting);
    return {};
  }

  @SubscribeMessage(LIVE.hand)
  async hand(
    @ConnectedSocket() socket: LiveSocket,
    @MessageBody() { sitting, up, who }: HandDto,
  ): Promise<object> {
    const { visitor } = socket.data;
    if (visitor.role === 'student') this.classes.setHand(sitting, this.studentOf(socket, sitting), up);
    else {
      await this.access.teaches(sitting, visitor);
      if (!up) this.classes.lowerHands(sitting, who);
    }
    this.classes.announceSoon(sitting);
    return {};
  }

  @SubscribeMessage(LIVE.react)
  react(@ConnectedSocket() socket: LiveSocket, @MessageBody() { sitting, which }: ReactDto): object {
    const student = this.studentOf(socket, sitting);
    const message: ReactedMessage = { sitting, which, student };
    this.server.local.to(audienceRoom(sitting, 'teacher')).volatile.emit(LIVE.reacted, message);
    return {};
  }

  /** Who a student is, if they are one of this class. Throws Problem, or Refusal where it is too much at once. */
  private studentOf({ data: { visitor, budget } }: LiveSocket, sitting: string): string {
    if (visitor.role !== 'student' || visitor.sitting !== sitting)
      throw new Problem(403, 'students-only', 'Only students of this class can do that.');
    if (!budget.submits.take()) throw new Refusal('too-fast');
    return visitor.student;
  }
}
