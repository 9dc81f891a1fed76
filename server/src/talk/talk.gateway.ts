import { UseFilters, UsePipes } from '@nestjs/common';
import {
  ConnectedSocket,
  MessageBody,
  SubscribeMessage,
  WebSocketGateway,
  WebSocketServer,
} from '@nestjs/websockets';
import type { Actor, ChatMessage, ChatReply, NotedMessage, NotesReply, NoteStepsReply } from '@doodla/core';
import { LIVE, Refusal } from '@doodla/core';
import type { Server } from 'socket.io';
import { notFound, Problem } from '../http/problem.js';
import { AccessService } from '../live/access.service.js';
import { AUDIENCES } from '../live/classes.service.js';
import { FailureFilter } from '../live/failure.filter.js';
import { EnterDto } from '../live/live.dto.js';
import type { LiveSocket } from '../live/liveSocket.js';
import { audienceRoom, classRoom, GATEWAY, liveValidation } from '../live/liveSocket.js';
import type { Sitting } from '../sittings/sitting.entity.js';
import { rulesOf, SittingsService } from '../sittings/sittings.service.js';
import { ChatService } from './chat.service.js';
import type { SaidWords } from './chatMessage.entity.js';
import { NotesService } from './notes.service.js';
import { NoteStepsDto, SayDto, UnsayDto } from './talk.dto.js';

/** Letters of steps that are sent at once, as JSON. */
const MOST_LETTERS = 200_000;

/** What a class says to each other, and what it notes down. */
@WebSocketGateway(GATEWAY)
@UsePipes(liveValidation)
@UseFilters(FailureFilter)
export class TalkGateway {
  @WebSocketServer() private readonly server: Server;

  constructor(
    private readonly access: AccessService,
    private readonly sittings: SittingsService,
    private readonly chats: ChatService,
    private readonly noting: NotesService,
  ) {}

  @SubscribeMessage(LIVE.chat)
  async chat(
    @ConnectedSocket() socket: LiveSocket,
    @MessageBody() { sitting }: EnterDto,
  ): Promise<ChatReply> {
    const at = await this.comesTo(socket, sitting);
    return { messages: await this.chats.last(at.sitting, at.actor) };
  }

  @SubscribeMessage(LIVE.say)
  async say(@ConnectedSocket() socket: LiveSocket, @MessageBody() dto: SayDto): Promise<ChatMessage> {
    const { actor, sitting } = await this.comesTo(socket, dto.sitting);
    if (!socket.data.budget.words.take()) throw new Refusal('too-fast');
    const said = await this.chats.say(sitting, actor, dto.id, dto.words);
    this.tell(said, sitting);
    return this.chats.asSeenBy(actor, said, sitting)!;
  }

  @SubscribeMessage(LIVE.unsay)
  async unsay(
    @ConnectedSocket() socket: LiveSocket,
    @MessageBody() { sitting: id, ...dto }: UnsayDto,
  ): Promise<object> {
    await this.access.teaches(id, socket.data.visitor);
    const { sitting } = await this.comesTo(socket, id);
    this.tell(await this.chats.setRemoved(id, dto.id, dto.removed), sitting);
    return {};
  }

  @SubscribeMessage(LIVE.notes)
  async notes(
    @ConnectedSocket() socket: LiveSocket,
    @MessageBody() { sitting }: EnterDto,
  ): Promise<NotesReply> {
    await this.comesTo(socket, sitting);
    const { doc, version } = await this.noting.of(sitting);
    return { doc, version };
  }

  @SubscribeMessage(LIVE.noteSteps)
  async noteSteps(
    @ConnectedSocket() socket: LiveSocket,
    @MessageBody() { sitting: id, version, steps, client }: NoteStepsDto,
  ): Promise<NoteStepsReply> {
    const { actor, sitting } = await this.comesTo(socket, id);
    const letters = JSON.stringify(steps).length;
    if (!socket.data.budget.bytes.take(letters)) throw new Refusal('too-fast');
    if (letters > MOST_LETTERS) throw new Refusal('too-large');
    if (sitting.endedAt !== null) throw new Refusal('ended');
    if (actor.role !== 'teacher' && !rulesOf(sitting).scribes.includes(actor.id))
      throw new Problem(
        403,
        'not-a-scribe',
        'Only the teacher and whoever they have named write in the notes.',
      );
    const reply = await this.noting.take(id, version, steps, client);
    if (reply.taken) {
      const told: NotedMessage = { sitting: id, version, steps, clients: steps.map(() => client) };
      this.server.local.to(classRoom(id)).emit(LIVE.noted, told);
    }
    return reply;
  }

  /** Who somebody is in a class that they may be in. Throws Problem, or Refusal where they ask too often. */
  private async comesTo(
    { data: { visitor, budget } }: LiveSocket,
    id: string,
  ): Promise<{ actor: Actor; sitting: Sitting }> {
    if (!budget.submits.take()) throw new Refusal('too-fast');
    const { actor } = await this.access.to({ kind: 'sitting', id }, visitor);
    const sitting = await this.sittings.find(id);
    if (!sitting) throw notFound('This class');
    return { actor, sitting };
  }

  private tell(said: SaidWords, sitting: Sitting): void {
    for (const audience of AUDIENCES) {
      const role = audience === 'teacher' ? 'teacher' : 'student';
      const message = this.chats.asSeenBy({ id: '', role }, said, sitting);
      if (message)
        this.server.local
          .to(audienceRoom(sitting.id, audience))
          .emit(LIVE.said, { sitting: sitting.id, message });
    }
  }
}
