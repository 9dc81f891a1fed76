import { Logger, UseFilters, UsePipes } from '@nestjs/common';
import type { OnGatewayDisconnect } from '@nestjs/websockets';
import {
  ConnectedSocket,
  MessageBody,
  SubscribeMessage,
  WebSocketGateway,
  WebSocketServer,
} from '@nestjs/websockets';
import type { ScreenPart } from '@doodla/core';
import { MAX_SCREEN_PART, MAX_SOUND_PART, SCREEN } from '@doodla/core';
import { plainToInstance } from 'class-transformer';
import { validate } from 'class-validator';
import type { Server } from 'socket.io';
import { logFailure } from '../http/failures.js';
import { AccessService } from '../live/access.service.js';
import { FailureFilter } from '../live/failure.filter.js';
import { EnterDto } from '../live/live.dto.js';
import type { LiveSocket } from '../live/liveSocket.js';
import { classRoom, GATEWAY, liveValidation } from '../live/liveSocket.js';
import { TokenBucket } from '../live/tokenBucket.js';
import {
  ScreenAllowDto,
  ScreenKeepDto,
  ScreenPartDto,
  ScreenSizeDto,
  ScreenStartDto,
  ScreenTurnDto,
  SoundPartDto,
} from './screens.dto.js';
import { ScreensService } from './screens.service.js';

/** A viewer with so many messages waiting is too slow for this part and waits for the next whole one. */
const SLOW = 6;
/** A presenter is asked for a whole frame at most this often. */
const WHOLE_EVERY_MS = 700;

/** Passes shown screens on from the one who shows to everybody else in the class. */
@WebSocketGateway(GATEWAY)
@UsePipes(liveValidation)
@UseFilters(FailureFilter)
export class ScreensGateway implements OnGatewayDisconnect {
  @WebSocketServer() private readonly server: Server;
  private readonly logger = new Logger('Screens');
  /** Viewers who have missed a part and can make nothing of the next before a whole one. */
  private readonly behind = new WeakSet<LiveSocket>();
  private readonly buckets = new WeakMap<LiveSocket, TokenBucket>();
  private readonly askedAt = new Map<string, number>();

  constructor(
    private readonly access: AccessService,
    private readonly screens: ScreensService,
  ) {}

  async handleDisconnect(socket: LiveSocket): Promise<void> {
    try {
      await this.screens.dropped(socket.id);
    } catch (error) {
      logFailure(this.logger, 'A screen that is gone could not be told', error);
    }
  }

  @SubscribeMessage(SCREEN.start)
  async start(@ConnectedSocket() socket: LiveSocket, @MessageBody() dto: ScreenStartDto) {
    const { id, isTeacher } = await this.actor(socket, dto.sitting);
    const page = await this.screens.start(dto.sitting, { id, isTeacher, socket: socket.id }, dto, dto.page);
    return { page };
  }

  @SubscribeMessage(SCREEN.view)
  async view(@ConnectedSocket() socket: LiveSocket, @MessageBody() dto: ScreenSizeDto) {
    return { page: await this.screens.view(dto.sitting, socket.id, dto) };
  }

  @SubscribeMessage(SCREEN.show)
  async show(@ConnectedSocket() socket: LiveSocket, @MessageBody() dto: ScreenTurnDto) {
    await this.screens.show(dto.sitting, socket.id, dto.page, dto.panes);
    return {};
  }

  @SubscribeMessage(SCREEN.keep)
  async keep(@ConnectedSocket() socket: LiveSocket, @MessageBody() dto: ScreenKeepDto) {
    const { id } = await this.actor(socket, dto.sitting);
    await this.screens.keep(dto.sitting, { id, socket: socket.id }, dto.page, dto.pictures);
    return {};
  }

  @SubscribeMessage(SCREEN.stop)
  async stop(@ConnectedSocket() socket: LiveSocket, @MessageBody() { sitting }: EnterDto) {
    await this.screens.stop(sitting, await this.actor(socket, sitting));
    return {};
  }

  @SubscribeMessage(SCREEN.allow)
  async allow(@ConnectedSocket() socket: LiveSocket, @MessageBody() dto: ScreenAllowDto) {
    await this.access.teaches(dto.sitting, socket.data.visitor);
    await this.screens.allow(dto.sitting, dto.student, dto.may);
    return {};
  }

  @SubscribeMessage(SCREEN.whole)
  async whole(@ConnectedSocket() socket: LiveSocket, @MessageBody() { sitting }: EnterDto): Promise<void> {
    await this.actor(socket, sitting);
    this.askForWhole(sitting);
  }

  @SubscribeMessage(SCREEN.plain)
  async plain(@ConnectedSocket() socket: LiveSocket, @MessageBody() { sitting }: EnterDto): Promise<void> {
    await this.actor(socket, sitting);
    const presenter = this.screens.socketOf(sitting);
    if (presenter !== undefined) this.server.local.to(presenter).emit(SCREEN.plain, { sitting });
  }

  /** A part of a screen comes as its head and its bytes; it is checked here, since it is no single object. */
  @SubscribeMessage(SCREEN.part)
  async part(@ConnectedSocket() socket: LiveSocket, @MessageBody() message: unknown): Promise<void> {
    const [head, bytes] = Array.isArray(message) ? (message as unknown[]) : [];
    if (!this.mayPass(socket)) return;
    if (!Buffer.isBuffer(bytes) || bytes.length === 0 || bytes.length > MAX_SCREEN_PART) return;
    const part = plainToInstance(ScreenPartDto, head);
    if ((await validate(part)).length > 0 || this.screens.socketOf(part.sitting) !== socket.id) return;
    this.passOn(socket, part, bytes);
  }

  /** A piece of the screen's sound, head and bytes like its parts. */
  @SubscribeMessage(SCREEN.sound)
  async sound(@ConnectedSocket() socket: LiveSocket, @MessageBody() message: unknown): Promise<void> {
    const [head, bytes] = Array.isArray(message) ? (message as unknown[]) : [];
    if (!this.mayPass(socket)) return;
    if (!Buffer.isBuffer(bytes) || bytes.length === 0 || bytes.length > MAX_SOUND_PART) return;
    const part = plainToInstance(SoundPartDto, head);
    if ((await validate(part)).length > 0 || this.screens.socketOf(part.sitting) !== socket.id) return;
    socket.local.to(classRoom(part.sitting)).volatile.emit(SCREEN.sound, part, bytes);
  }

  private mayPass(socket: LiveSocket): boolean {
    // Ten pictures and fifty pieces of sound a second, and some to spare.
    const bucket = this.buckets.get(socket) ?? new TokenBucket(150, 100);
    this.buckets.set(socket, bucket);
    return bucket.take();
  }

  private passOn(from: LiveSocket, part: ScreenPart, bytes: Buffer): void {
    for (const id of this.server.sockets.adapter.rooms.get(classRoom(part.sitting)) ?? []) {
      const viewer = this.server.sockets.sockets.get(id) as LiveSocket | undefined;
      if (!viewer || id === from.id) continue;
      const waiting = (viewer.conn as unknown as { writeBuffer: unknown[] }).writeBuffer.length;
      if (waiting > SLOW) {
        this.behind.add(viewer);
        continue;
      }
      if (this.behind.has(viewer)) {
        if (!part.key) {
          this.askForWhole(part.sitting);
          continue;
        }
        this.behind.delete(viewer);
      }
      viewer.emit(SCREEN.part, part, bytes);
    }
  }

  private askForWhole(sitting: string): void {
    const now = Date.now();
    const presenter = this.screens.socketOf(sitting);
    if (presenter === undefined || now - (this.askedAt.get(sitting) ?? 0) < WHOLE_EVERY_MS) return;
    this.askedAt.set(sitting, now);
    this.server.local.to(presenter).emit(SCREEN.whole, { sitting });
  }

  private async actor(socket: LiveSocket, sitting: string): Promise<{ id: string; isTeacher: boolean }> {
    const { actor } = await this.access.to({ kind: 'sitting', id: sitting }, socket.data.visitor);
    return { id: actor.id, isTeacher: actor.role === 'teacher' };
  }
}
