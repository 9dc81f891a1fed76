import { Logger, UseFilters, UsePipes } from '@nestjs/common';
import type { OnGatewayConnection, OnGatewayDisconnect, OnGatewayInit } from '@nestjs/websockets';
import {
  ConnectedSocket,
  MessageBody,
  SubscribeMessage,
  WebSocketGateway,
  WebSocketServer,
} from '@nestjs/websockets';
import type { ClassState, PointedMessage, SceneMessage } from '@doodla/core';
import { LIVE, Refusal } from '@doodla/core';
import type { Server, Socket } from 'socket.io';
import { DevicesService } from '../devices/devices.service.js';
import { logFailure } from '../http/failures.js';
import { Problem } from '../http/problem.js';
import { Peers } from '../processes/peers.js';
import { PeopleService } from '../people/people.service.js';
import type { Visitor } from '../people/visitor.js';
import { VisitorsService } from '../people/visitors.service.js';
import { SittingsService } from '../sittings/sittings.service.js';
import { AccessService } from './access.service.js';
import { ClassesService } from './classes.service.js';
import { FailureFilter } from './failure.filter.js';
import {
  EnterDto,
  LooksDto,
  PensDto,
  PensOfDto,
  PointDto,
  RulesDto,
  SceneDto,
  ShowCopyDto,
  TablesDto,
  TurnDto,
  WaysDto,
} from './live.dto.js';
import type { Budget, LiveData, LiveSocket } from './liveSocket.js';
import { audienceRoom, classRoom, GATEWAY, liveValidation, newBudget } from './liveSocket.js';
import { LogsService } from './logs.service.js';

/** Connections of one student or device, and of one signed-in browser, at once. */
const MOST_SOCKETS = { student: 8, device: 8, helper: 8, teacher: 60 };

/** Who is connected, and how things stand in a class. */
@WebSocketGateway(GATEWAY)
@UsePipes(liveValidation)
@UseFilters(FailureFilter)
export class ClassGateway implements OnGatewayInit, OnGatewayConnection, OnGatewayDisconnect {
  @WebSocketServer() private readonly server: Server;
  private readonly logger = new Logger('Live');

  constructor(
    private readonly visitors: VisitorsService,
    private readonly people: PeopleService,
    private readonly access: AccessService,
    private readonly logs: LogsService,
    private readonly classes: ClassesService,
    private readonly devices: DevicesService,
    private readonly sittings: SittingsService,
    private readonly peers: Peers,
  ) {}

  afterInit(server: Server): void {
    this.peers.attach(server);
    this.classes.onChange((change, audience) =>
      server.local.to(audienceRoom(change.sitting, audience)).emit(LIVE.classChange, change),
    );
    this.devices.onRemoved((id) => this.throwOut((visitor) => 'device' in visitor && visitor.device === id));
    this.sittings.onRemoved((id) =>
      this.throwOut((visitor) => visitor.role === 'student' && visitor.student === id),
    );
    this.people.onSignedOut((session) =>
      this.throwOut((visitor) => visitor.role === 'teacher' && visitor.session === session),
    );
    server.use((socket, next) => {
      const { token } = socket.handshake.auth as { token?: unknown };
      this.visitorOf(typeof token === 'string' ? token : undefined, socket).then((visitor) => {
        if (visitor.role === 'nobody') return next(new Error('sign-in'));
        if (this.isCrowded(visitor)) return next(new Error('too-many'));
        const data: LiveData = { visitor, open: new Map(), away: false, budget: this.budgetOf(visitor) };
        Object.assign(socket.data, data);
        next();
      }, next);
    });
  }

  /** How many browsers are connected, by who they are. */
  connections(): ReadonlyMap<string, number> {
    const counts = new Map<string, number>();
    for (const { data } of this.server.sockets.sockets.values()) {
      const { role } = (data as LiveData).visitor;
      counts.set(role, (counts.get(role) ?? 0) + 1);
    }
    return counts;
  }

  /** How many classes somebody is connected to. */
  openClasses(): number {
    const { rooms } = this.server.sockets.adapter;
    return [...rooms.keys()].filter((room) => room.startsWith(classRoom(''))).length;
  }

  async handleConnection(socket: LiveSocket): Promise<void> {
    const { visitor } = socket.data;
    if (!('sitting' in visitor)) return;
    try {
      await this.classes.arrive(visitor.sitting, idOf(visitor));
    } catch (error) {
      // A class that is gone, or could not be read: its visitor is told to leave, everybody else goes on.
      logFailure(this.logger, 'Somebody came to a class that cannot be opened', error);
      socket.emit(LIVE.out);
      socket.disconnect(true);
    }
  }

  async handleDisconnect({ data: { visitor, away } }: LiveSocket): Promise<void> {
    if (!('sitting' in visitor)) return;
    try {
      await this.classes.leave(visitor.sitting, idOf(visitor), away);
    } catch (error) {
      logFailure(this.logger, 'Nobody could be told that somebody left', error);
    }
  }

  @SubscribeMessage(LIVE.enter)
  async enter(
    @ConnectedSocket() socket: LiveSocket,
    @MessageBody() { sitting }: EnterDto,
  ): Promise<ClassState> {
    const { actor } = await this.access.to({ kind: 'sitting', id: sitting }, socket.data.visitor);
    const audience = actor.role === 'teacher' ? 'teacher' : 'students';
    await socket.join([classRoom(sitting), audienceRoom(sitting, audience)]);
    return this.classes.state(sitting, audience);
  }

  @SubscribeMessage(LIVE.looks)
  async looks(
    @ConnectedSocket() { data }: LiveSocket,
    @MessageBody() { sitting, away }: LooksDto,
  ): Promise<object> {
    const { visitor } = data;
    if (!('sitting' in visitor) || visitor.sitting !== sitting || data.away === away) return {};
    if (!data.budget.submits.take()) throw new Refusal('too-fast');
    data.away = away;
    await this.classes.lookAway(sitting, idOf(visitor), away);
    return {};
  }

  @SubscribeMessage(LIVE.turn)
  async turn(
    @ConnectedSocket() socket: LiveSocket,
    @MessageBody() { sitting, page }: TurnDto,
  ): Promise<object> {
    await this.access.teaches(sitting, socket.data.visitor);
    // A page that was added just before is there once its operation has had its turn.
    const isThere = await this.logs.inTurn(sitting, (log) =>
      Promise.resolve(log.pages.get(page)?.removed === false),
    );
    if (!isThere) throw new Problem(404, 'page-gone', 'That page is no longer there.');
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

  @SubscribeMessage(LIVE.pensOf)
  async pensOf(
    @ConnectedSocket() socket: LiveSocket,
    @MessageBody() { sitting, pens }: PensOfDto,
  ): Promise<object> {
    await this.access.teaches(sitting, socket.data.visitor);
    await this.classes.setPensOf(sitting, pens);
    return {};
  }

  @SubscribeMessage(LIVE.ways)
  async ways(
    @ConnectedSocket() socket: LiveSocket,
    @MessageBody() { sitting, ways }: WaysDto,
  ): Promise<object> {
    await this.access.teaches(sitting, socket.data.visitor);
    await this.classes.setWays(sitting, ways);
    return {};
  }

  @SubscribeMessage(LIVE.tables)
  async tables(
    @ConnectedSocket() socket: LiveSocket,
    @MessageBody() { sitting, tables }: TablesDto,
  ): Promise<object> {
    await this.access.teaches(sitting, socket.data.visitor);
    await this.classes.setTables(sitting, tables);
    return {};
  }

  @SubscribeMessage(LIVE.showCopy)
  async showCopy(
    @ConnectedSocket() socket: LiveSocket,
    @MessageBody() { sitting, copy }: ShowCopyDto,
  ): Promise<object> {
    await this.access.teaches(sitting, socket.data.visitor);
    await this.classes.showCopy(sitting, copy);
    return {};
  }

  @SubscribeMessage(LIVE.rules)
  async rules(
    @ConnectedSocket() socket: LiveSocket,
    @MessageBody() { sitting, set }: RulesDto,
  ): Promise<object> {
    await this.access.teaches(sitting, socket.data.visitor);
    await this.classes.setRules(sitting, set);
    return {};
  }

  @SubscribeMessage(LIVE.scene)
  async scene(@ConnectedSocket() socket: LiveSocket, @MessageBody() dto: SceneDto): Promise<object> {
    await this.access.teaches(dto.sitting, socket.data.visitor);
    if (dto.moving && !socket.data.budget.draws.take()) return {};
    await this.classes.setScene(dto.sitting, dto.set, dto.moving);
    const message: SceneMessage = { ...dto };
    if (dto.moving) socket.local.to(classRoom(dto.sitting)).volatile.emit(LIVE.scene, message);
    return {};
  }

  @SubscribeMessage(LIVE.point)
  async point(@ConnectedSocket() socket: LiveSocket, @MessageBody() dto: PointDto): Promise<void> {
    if (!socket.data.budget.draws.take()) return;
    // Pointing comes many times a second; whoever has the class open has been let in.
    const open = socket.data.open.get(dto.sitting);
    const { actor } =
      open ?? (await this.access.to({ kind: 'sitting', id: dto.sitting }, socket.data.visitor));
    if (actor.role === 'student' && !(await this.classes.mayPoint(dto.sitting, actor.id))) return;
    const message: PointedMessage = { ...dto, author: actor.id };
    const others = socket.local.to(classRoom(dto.sitting));
    if (dto.gone) others.emit(LIVE.pointed, message);
    else others.volatile.emit(LIVE.pointed, message);
  }

  private async visitorOf(token: string | undefined, socket: Socket): Promise<Visitor> {
    const visitor = await this.visitors.of(token, socket.request);
    if ('device' in visitor && !(await this.devices.present(visitor.device))) return { role: 'nobody' };
    if (visitor.role === 'student' && !(await this.sittings.student(visitor.student)))
      return { role: 'nobody' };
    return visitor;
  }

  private isCrowded(visitor: Exclude<Visitor, { role: 'nobody' }>): boolean {
    const key = keyOf(visitor);
    let count = 0;
    for (const { data } of this.server.sockets.sockets.values())
      if (keyOf((data as LiveData).visitor) === key) count += 1;
    return count >= MOST_SOCKETS[visitor.role];
  }

  /** One budget for all connections of a person; it lives on while one of them is there. */
  private budgetOf(visitor: Visitor): Budget {
    const key = keyOf(visitor);
    for (const { data } of this.server.sockets.sockets.values()) {
      const known = data as LiveData;
      if (keyOf(known.visitor) === key) return known.budget;
    }
    return newBudget();
  }

  private throwOut(isMeant: (visitor: Visitor) => boolean): void {
    for (const socket of this.server.sockets.sockets.values()) {
      if (!isMeant((socket.data as LiveData).visitor)) continue;
      socket.emit(LIVE.out);
      socket.disconnect(true);
    }
  }
}

function idOf(visitor: Extract<Visitor, { sitting: string }>): string {
  return visitor.role === 'student' ? visitor.student : visitor.device;
}

function keyOf(visitor: Visitor): string {
  if ('sitting' in visitor) return idOf(visitor);
  if (visitor.role === 'helper') return visitor.device;
  return visitor.role === 'teacher' ? visitor.session : '';
}
