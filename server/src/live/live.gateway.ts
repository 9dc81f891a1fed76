import { UseFilters, UsePipes, ValidationPipe } from '@nestjs/common';
import type { OnGatewayConnection, OnGatewayDisconnect, OnGatewayInit } from '@nestjs/websockets';
import {
  ConnectedSocket,
  MessageBody,
  SubscribeMessage,
  WebSocketGateway,
  WebSocketServer,
} from '@nestjs/websockets';
import type {
  ClassState,
  DrawnMessage,
  LogState,
  OpenReply,
  OperationMessage,
  PointedMessage,
  SceneMessage,
  StoredMessage,
} from '@doodla/core';
import {
  LIVE,
  MAX_OPERATION_LENGTH,
  maySee,
  Refusal,
  refusalOf,
  snapshotOf,
  visibleSnapshot,
  visibleTo,
} from '@doodla/core';
import type { DefaultEventsMap, Server, Socket } from 'socket.io';
import { DevicesService } from '../devices/devices.service.js';
import { Problem } from '../http/problem.js';
import type { Visitor } from '../people/visitor.js';
import { VisitorsService } from '../people/visitors.service.js';
import type { Access } from './access.service.js';
import { AccessService } from './access.service.js';
import { ClassesService } from './classes.service.js';
import { FailureFilter } from './failure.filter.js';
import { DrawDto, EnterDto, OpenDto, PensDto, PointDto, SceneDto, SubmitDto, TurnDto } from './live.dto.js';
import type { AppendedOperation } from './logs.service.js';
import { LogsService } from './logs.service.js';
import { TokenBucket } from './tokenBucket.js';

interface LiveData {
  visitor: Visitor;
  /** Logs that this socket has open, with what it may do in them. */
  open: Map<string, Access>;
  submits: TokenBucket;
  draws: TokenBucket;
}

export type LiveSocket = Socket<DefaultEventsMap, DefaultEventsMap, DefaultEventsMap, LiveData>;

/** Catching up on more operations than this is slower than a snapshot. */
const CATCH_UP_LIMIT = 500;
const logRoom = (id: string) => `log ${id}`;
export const classRoom = (sitting: string) => `class ${sitting}`;

export const liveValidation = new ValidationPipe({
  transform: true,
  whitelist: true,
  exceptionFactory: () => new Refusal('bad-mark'),
});

/** All gateways share one server. */
export const GATEWAY = {
  path: '/live',
  serveClient: false,
  maxHttpBufferSize: 4 * MAX_OPERATION_LENGTH,
  perMessageDeflate: { threshold: 2048 },
};

@WebSocketGateway(GATEWAY)
@UsePipes(liveValidation)
@UseFilters(FailureFilter)
export class LiveGateway implements OnGatewayInit, OnGatewayConnection, OnGatewayDisconnect {
  @WebSocketServer() private readonly server: Server;

  constructor(
    private readonly visitors: VisitorsService,
    private readonly access: AccessService,
    private readonly logs: LogsService,
    private readonly classes: ClassesService,
    private readonly devices: DevicesService,
  ) {}

  afterInit(server: Server): void {
    this.logs.onAppended((log, appended, state, from) => this.tell(log, appended, state, from));
    this.classes.onChange((state) => server.to(classRoom(state.sitting)).emit(LIVE.classState, state));
    this.devices.onRemoved((device) => this.throwOut(device));
    server.use((socket, next) => {
      const { token } = socket.handshake.auth as { token?: unknown };
      this.visitorOf(typeof token === 'string' ? token : undefined, socket).then((visitor) => {
        if (visitor.role === 'nobody') return next(new Error('sign-in'));
        const data: LiveData = {
          visitor,
          open: new Map(),
          submits: new TokenBucket(400, 60),
          draws: new TokenBucket(400, 150),
        };
        Object.assign(socket.data, data);
        next();
      }, next);
    });
  }

  async handleConnection({ data: { visitor } }: LiveSocket): Promise<void> {
    if ('sitting' in visitor) await this.classes.arrive(visitor.sitting, idOf(visitor));
  }

  async handleDisconnect({ data: { visitor } }: LiveSocket): Promise<void> {
    if ('sitting' in visitor) await this.classes.leave(visitor.sitting, idOf(visitor));
  }

  @SubscribeMessage(LIVE.open)
  async open(@ConnectedSocket() socket: LiveSocket, @MessageBody() dto: OpenDto): Promise<OpenReply> {
    const access = await this.access.to(dto.log, socket.data.visitor);
    const { actor } = access;
    const log = await this.logs.open(dto.log.id);
    return log.inTurn(async () => {
      await socket.join(logRoom(log.id));
      socket.data.open.set(log.id, access);
      const undoable = await this.logs.undoable(log.id, actor.id);
      const behind = dto.since === undefined ? Infinity : log.seq - dto.since;
      if (behind < 0 || behind > CATCH_UP_LIMIT) {
        return {
          actor,
          snapshot: visibleSnapshot(actor, snapshotOf(log.state, log.seq)),
          operations: [],
          undoable,
        };
      }
      const missed = await this.logs.since(log.id, dto.since!);
      const operations = missed.map(({ logged, inverse }) => visibleTo(actor, logged, inverse, log.state));
      return { actor, operations, undoable };
    });
  }

  @SubscribeMessage(LIVE.submit)
  async submit(
    @ConnectedSocket() socket: LiveSocket,
    @MessageBody() { log: ref, operation }: SubmitDto,
  ): Promise<object> {
    if (!socket.data.submits.take()) throw new Refusal('too-fast');
    if (JSON.stringify(operation).length > MAX_OPERATION_LENGTH) throw new Refusal('too-large');
    const access = socket.data.open.get(ref.id);
    if (!access) throw new Problem(409, 'not-open', 'Open the page before you write on it.');
    const { actor, writes, situation } = access;
    if (!writes) throw new Refusal('not-allowed');
    const now = await situation();
    await this.logs.append(ref.id, actor.id, operation, {
      judge: (full, state) => refusalOf(full, actor, state, now),
      from: socket.id,
    });
    return {};
  }

  @SubscribeMessage(LIVE.draw)
  async draw(@ConnectedSocket() socket: LiveSocket, @MessageBody() dto: DrawDto): Promise<void> {
    const access = socket.data.open.get(dto.log.id);
    if (!access?.writes || !socket.data.draws.take()) return;
    const { actor } = access;
    const now = await access.situation();
    const may =
      actor.role === 'teacher' ||
      now.pensUp ||
      (dto.fade !== undefined && (await this.classes.mayPoint(dto.log.id, actor.id)));
    if (now.ended || !may || !maySee(dto.space, actor)) return;
    const message: DrawnMessage = { ...dto, author: actor.id };
    for (const other of this.listeners(dto.log.id)) {
      if (other.id !== socket.id && maySee(dto.space, other.data.open.get(dto.log.id)!.actor)) {
        // Ink that fades becomes no mark that would make up for what was lost.
        if (dto.fade === undefined) other.volatile.emit(LIVE.drawn, message);
        else other.emit(LIVE.drawn, message);
      }
    }
  }

  @SubscribeMessage(LIVE.enter)
  async enter(
    @ConnectedSocket() socket: LiveSocket,
    @MessageBody() { sitting }: EnterDto,
  ): Promise<ClassState> {
    await this.access.to({ kind: 'sitting', id: sitting }, socket.data.visitor);
    await socket.join(classRoom(sitting));
    return this.classes.state(sitting);
  }

  @SubscribeMessage(LIVE.turn)
  async turn(
    @ConnectedSocket() socket: LiveSocket,
    @MessageBody() { sitting, page }: TurnDto,
  ): Promise<object> {
    await this.access.teaches(sitting, socket.data.visitor);
    const { situation } = await this.access.to({ kind: 'sitting', id: sitting }, socket.data.visitor);
    if (!(await situation()).hasPage(page))
      throw new Problem(404, 'no-such-page', 'That page is no longer there.');
    await this.classes.turn(sitting, page);
    return {};
  }

  @SubscribeMessage(LIVE.pens)
  async pens(
    @ConnectedSocket() socket: LiveSocket,
    @MessageBody() { sitting, up }: PensDto,
  ): Promise<object> {
    await this.access.teaches(sitting, socket.data.visitor);
    await this.classes.setPens(sitting, up);
    return {};
  }

  @SubscribeMessage(LIVE.scene)
  async scene(@ConnectedSocket() socket: LiveSocket, @MessageBody() dto: SceneDto): Promise<object> {
    await this.access.teaches(dto.sitting, socket.data.visitor);
    if (dto.moving && !socket.data.draws.take()) return {};
    await this.classes.setScene(dto.sitting, dto.set, dto.moving);
    const message: SceneMessage = { ...dto };
    if (dto.moving) socket.to(classRoom(dto.sitting)).volatile.emit(LIVE.scene, message);
    return {};
  }

  @SubscribeMessage(LIVE.point)
  async point(@ConnectedSocket() socket: LiveSocket, @MessageBody() dto: PointDto): Promise<void> {
    if (!socket.data.draws.take()) return;
    // Pointing comes many times a second; whoever has the class open has been let in.
    const open = socket.data.open.get(dto.sitting);
    const { actor } =
      open ?? (await this.access.to({ kind: 'sitting', id: dto.sitting }, socket.data.visitor));
    if (actor.role === 'student' && !(await this.classes.mayPoint(dto.sitting, actor.id))) return;
    const message: PointedMessage = { ...dto, author: actor.id };
    const others = socket.to(classRoom(dto.sitting));
    if (dto.gone) others.emit(LIVE.pointed, message);
    else others.volatile.emit(LIVE.pointed, message);
  }

  private async visitorOf(token: string | undefined, socket: Socket): Promise<Visitor> {
    const visitor = await this.visitors.of(token, socket.request);
    if (visitor.role === 'device' && !(await this.devices.present(visitor.device))) return { role: 'nobody' };
    return visitor;
  }

  private throwOut(device: string): void {
    for (const socket of this.server.sockets.sockets.values()) {
      const { visitor } = socket.data as LiveData;
      if (visitor.role !== 'device' || visitor.device !== device) continue;
      socket.emit(LIVE.out);
      socket.disconnect(true);
    }
  }

  /** Tells everybody who has the log open of a stored operation, each what they may see of it. */
  private tell(
    log: string,
    { logged, inverse }: AppendedOperation,
    state: LogState,
    from: string | undefined,
  ): void {
    const { seq, at, operation } = logged;
    const stored: StoredMessage = {
      log,
      seq,
      at,
      operation: operation.id,
      ...(operation.undoes && { changes: operation.changes }),
    };
    for (const socket of this.listeners(log)) {
      if (socket.id === from) socket.emit(LIVE.stored, stored);
      else {
        const message: OperationMessage = {
          log,
          logged: visibleTo(socket.data.open.get(log)!.actor, logged, inverse, state),
        };
        socket.emit(LIVE.operation, message);
      }
    }
  }

  private listeners(logId: string): LiveSocket[] {
    const ids = this.server.sockets.adapter.rooms.get(logRoom(logId)) ?? new Set();
    return [...ids].flatMap((id) => (this.server.sockets.sockets.get(id) as LiveSocket | undefined) ?? []);
  }
}

function idOf(visitor: Extract<Visitor, { sitting: string }>): string {
  return visitor.role === 'student' ? visitor.student : visitor.device;
}
