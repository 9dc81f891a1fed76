import { Logger, UseFilters, UsePipes } from '@nestjs/common';
import type { OnGatewayInit } from '@nestjs/websockets';
import { ConnectedSocket, MessageBody, SubscribeMessage, WebSocketGateway } from '@nestjs/websockets';
import type { Actor, DrawMessage, InkHead, Mark, OpenReply, PieceMessage, SubmitReply } from '@doodla/core';
import {
  isDrawMessage,
  LIVE,
  MAX_MARKS,
  MAX_OPERATION_LENGTH,
  mayDrawIn,
  maySee,
  placedBy,
  packLogged,
  packMark,
  Refusal,
  refusalOf,
  spaceOn,
  visibleTo,
} from '@doodla/core';
import type { Server } from 'socket.io';
import { logFailure } from '../http/failures.js';
import { Problem } from '../http/problem.js';
import { TeamsService } from '../lessons/teams.service.js';
import { ElsewhereError, Leases } from '../processes/leases.js';
import { FOR } from '../processes/passingOn.js';
import type { Access } from './access.service.js';
import { AccessService } from './access.service.js';
import { AnswersService } from './answers.service.js';
import { ClassesService } from './classes.service.js';
import { FailureFilter } from './failure.filter.js';
import { InkRelay } from './inkRelay.js';
import { OpenDto, ReadDto, SubmitDto } from './live.dto.js';
import type { LiveSocket } from './liveSocket.js';
import { GATEWAY, liveValidation, logRoom, socketsIn } from './liveSocket.js';
import type { AppendOptions } from './logs.service.js';
import { LogsService } from './logs.service.js';
import type { OpenLog } from './openLog.js';
import { OperationRelay } from './operationRelay.js';
import { SchoolsService } from '../schools/schools.service.js';
import { SharedBudget } from './sharedBudget.js';
import { slowLane } from './slowLane.js';

/** Catching up on more operations than this is slower than reading the pages anew. */
const CATCH_UP_LIMIT = 500;
/** Marks in one piece of a page. */
const PIECE = 120;
/** Pages that one person may read at once. */
const MOST_READING = 4;

/** Logs live: opening them, reading their pages, writing, and ink that is still wet. */
@WebSocketGateway(GATEWAY)
@UsePipes(liveValidation)
@UseFilters(FailureFilter)
export class LiveGateway implements OnGatewayInit {
  private readonly logger = new Logger('Live');
  private ink: InkRelay;
  private operations: OperationRelay;
  private readonly shared = new SharedBudget();
  private readonly inkListeners: ((waitedMs: number) => void)[] = [];
  /** What each connection has submitted last, until it is ready to be stored. */
  private readonly submitting = new WeakMap<LiveSocket, Promise<unknown>>();

  constructor(
    private readonly access: AccessService,
    private readonly answers: AnswersService,
    private readonly logs: LogsService,
    private readonly classes: ClassesService,
    private readonly teams: TeamsService,
    private readonly leases: Leases,
    private readonly schools: SchoolsService,
  ) {}

  afterInit(server: Server): void {
    this.ink = new InkRelay(server, (waitedMs) =>
      this.inkListeners.forEach((listener) => listener(waitedMs)),
    );
    this.operations = new OperationRelay(server);
    this.logs.onAppended((log, fresh) => this.operations.tell(log, fresh));
    this.classes.onRules((sitting) => this.refresh(server, sitting));
    this.teams.onLeft((lesson, teacherId) => this.putOut(server, lesson, teacherId));
    this.leases.onLeft((lesson) => this.sendAway(server, lesson));
    this.leases.useWhile((lesson) => this.connectedFor(server, lesson).length > 0);
    this.logs.holdWhile((log) => socketsIn(server, logRoom(log)).length > 0);
    // Wet ink comes by the thousand a second, so it goes past the machinery for requests.
    server.on('connection', (socket: LiveSocket) =>
      socket.on(LIVE.draw, (message: unknown) => {
        this.draw(socket, message).catch((error: unknown) =>
          logFailure(this.logger, 'Wet ink could not be passed on', error),
        );
      }),
    );
  }

  /** Calls back with how long wet ink has waited that is passed on, milliseconds. */
  onInk(listener: (waitedMs: number) => void): void {
    this.inkListeners.push(listener);
  }

  @SubscribeMessage(LIVE.open)
  async open(@ConnectedSocket() socket: LiveSocket, @MessageBody() dto: OpenDto): Promise<OpenReply> {
    const access = await this.access.to(dto.log, socket.data.visitor);
    await this.comesRight(socket, dto.log.id);
    return this.logs.inTurn(dto.log.id, async (log) => {
      await socket.join(logRoom(log.id));
      socket.data.open.set(log.id, access);
      return this.openReply(log, access, dto.since);
    });
  }

  /** Sends the marks of a page in pieces; what is stored meanwhile is told between them. */
  @SubscribeMessage(LIVE.read)
  async read(@ConnectedSocket() socket: LiveSocket, @MessageBody() dto: ReadDto): Promise<object> {
    const access = this.opened(socket, dto.log.id);
    const { budget } = socket.data;
    if (budget.reading >= MOST_READING) throw new Refusal('too-fast');
    budget.reading += 1;
    try {
      const marks = await (await this.logs.open(dto.log.id)).marksOn(dto.page);
      let piece: Mark[] = [];
      for (const mark of marks.values()) {
        if (!maySee(mark, access.actor)) continue;
        piece.push(mark);
        if (piece.length < PIECE) continue;
        this.sendPiece(socket, dto, piece, false);
        await budget.reads.wait(piece.length);
        await slowLane.turn();
        if (!socket.connected) return {};
        piece = [];
      }
      this.sendPiece(socket, dto, piece, true);
      return {};
    } finally {
      budget.reading -= 1;
    }
  }

  @SubscribeMessage(LIVE.submit)
  async submit(@ConnectedSocket() socket: LiveSocket, @MessageBody() dto: SubmitDto): Promise<SubmitReply> {
    // In the order in which it was done, however long something has to be looked up for it.
    const before = this.submitting.get(socket) ?? Promise.resolve();
    const ready = before.then(() => this.readied(socket, dto));
    this.submitting.set(
      socket,
      ready.catch(() => undefined), // Whoever submitted it hears of its failure.
    );
    const { actor, operation, answers, judge } = await ready;
    const { seq } = await this.logs.append(dto.log.id, actor.id, operation, { actor, judge });
    // The author hears of it before the answer, and need not ask.
    await this.operations.told(dto.log.id);
    if (answers?.endsTurn()) await this.classes.nextTurn(dto.log.id);
    return { seq };
  }

  /** An operation as it is to be stored, and who says whether it may be. */
  private async readied(socket: LiveSocket, { log: ref, operation }: SubmitDto) {
    const bytes = JSON.stringify(operation).length;
    const { budget } = socket.data;
    if (!budget.submits.take() || !budget.bytes.take(bytes)) throw new Refusal('too-fast');
    if (bytes > MAX_OPERATION_LENGTH) throw new Refusal('too-large');
    const { actor, writes, lesson, situation } = this.opened(socket, ref.id);
    if (!writes) throw new Refusal('not-allowed');
    await this.comesRight(socket, ref.id);
    const school = await this.schools.ofLesson(lesson ?? ref.id);
    if (!this.shared.take(await this.logs.open(ref.id), school, bytes)) throw new Refusal('too-fast');
    const now = await situation();
    const ways = ref.kind === 'sitting' ? await this.classes.waysOf(ref.id) : {};
    const changes = operation.changes.map((change) => placedBy(actor, change, ways));
    const turn = ref.kind === 'sitting' ? await this.classes.turnIn(ref.id) : undefined;
    const answers = await this.answers.judgeOf(ref.id, { lesson, turn }, changes);
    const judge: AppendOptions['judge'] = (full, view, count) =>
      refusalOf(full, actor, view, { ...now, full: count >= MAX_MARKS }) ?? answers?.judge(full, actor, view);
    return { actor, operation: { ...operation, changes }, answers, judge };
  }

  private async draw(socket: LiveSocket, message: unknown): Promise<void> {
    if (!socket.data.budget.draws.take() || !isDrawMessage(message)) return;
    const access = socket.data.open.get(message.log.id);
    const head = access?.writes ? this.ink.headOf(socket, message) : undefined;
    if (!access || !head) return;
    const { actor } = access;
    const now = await access.situation();
    if (await this.strays(message, head, actor)) return;
    const may =
      actor.role === 'teacher' ||
      now.pensUp ||
      (head.fade !== undefined && (await this.classes.mayPoint(message.log.id, actor.id)));
    if (!now.ended && may && mayDrawIn(head.space, actor)) this.ink.pass(message, actor.id, head);
  }

  /** Those who have the log of a class open are given what they may see of it now. */
  private async refresh(server: Server, sitting: string): Promise<void> {
    for (const { data } of socketsIn(server, logRoom(sitting))) {
      const access = data.open.get(sitting);
      // The same object: what is being read now goes by it too.
      if (access) access.actor = (await this.access.to({ kind: 'sitting', id: sitting }, data.visitor)).actor;
    }
  }

  /** Whoever comes here for what another process has in hand comes again, and is passed on to that one. */
  private async comesRight(socket: LiveSocket, log: string): Promise<void> {
    try {
      await this.leases.take(log);
    } catch (error) {
      if (error instanceof ElsewhereError) socket.conn.close();
      throw error;
    }
  }

  /** Whoever is connected for a lesson that is in this process's hand no more comes again, wherever it is then. */
  private sendAway(server: Server, lesson: string): void {
    for (const socket of this.connectedFor(server, lesson)) socket.conn.close();
  }

  private connectedFor(server: Server, lesson: string): LiveSocket[] {
    return ([...server.sockets.sockets.values()] as LiveSocket[]).filter(({ data, handshake }) => {
      if (handshake.query[FOR] === lesson) return true;
      const { visitor, open } = data;
      const logs = [...open.keys(), ...('sitting' in visitor ? [visitor.sitting] : [])];
      return logs.some((log) => this.leases.lessonOf(log) === lesson);
    });
  }

  /** Whoever does not work on a lesson any more is told nothing more of it. */
  private putOut(server: Server, lesson: string, teacherId: string): void {
    for (const socket of socketsIn(server, logRoom(lesson))) {
      const { visitor, open } = socket.data;
      if (visitor.role !== 'teacher' || visitor.teacher.id !== teacherId) continue;
      open.delete(lesson);
      void socket.leave(logRoom(lesson));
    }
  }

  /** Ink for all on a page that is handed out as copies. */
  private async strays({ log, page }: DrawMessage, { space }: InkHead, actor: Actor): Promise<boolean> {
    if (space !== 'class' || log.kind !== 'sitting') return false;
    const ways = await this.classes.waysOf(log.id);
    return spaceOn(ways[page], actor) !== 'class';
  }

  private opened(socket: LiveSocket, log: string): Access {
    const access = socket.data.open.get(log);
    if (!access) throw new Problem(409, 'not-open', 'Open the page before you write on it.');
    return access;
  }

  private async openReply(log: OpenLog, { actor }: Access, since: number | undefined): Promise<OpenReply> {
    const behind = since === undefined ? Infinity : log.seq - since;
    const base = { actor, seq: log.seq };
    if (behind < 0 || behind > CATCH_UP_LIMIT) {
      return {
        ...base,
        pages: [...log.pages.values()],
        written: await this.logs.writtenPages(log.id),
        operations: [],
        undoable: await this.logs.undoable(log.id, actor.id),
      };
    }
    const missed = await this.logs.since(log.id, since!);
    const touched = missed.flatMap(({ logged }) =>
      logged.operation.changes.flatMap((change) => (change.do === 'patch' ? [change.mark] : [])),
    );
    const { marks } = await log.viewOf(touched);
    const known = (id: string) => marks.get(id);
    const operations = missed.map(({ logged, inverse }) =>
      packLogged(visibleTo(actor, logged, inverse, known)),
    );
    return { ...base, operations, undoable: [] };
  }

  private sendPiece(socket: LiveSocket, { log, page, read }: ReadDto, marks: Mark[], last: boolean): void {
    this.operations.flush(log.id);
    const piece: PieceMessage = { log: log.id, page, read, marks: marks.map(packMark), last };
    socket.emit(LIVE.piece, piece);
  }
}
