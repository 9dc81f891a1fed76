import type { Actor, LogRef, LogState, Mark, Operation, Page, Situation, Ways } from '@doodla/core';
import { FREE, LIVE, maySee, Refusal } from '@doodla/core';
import { plainToInstance } from 'class-transformer';
import { validate } from 'class-validator';
import 'fake-indexeddb/auto';
import { deleteDB } from 'idb';
import { randomUUID } from 'node:crypto';
import { LiveError, LogClient } from '@doodla/core/client';
import { AnswersService } from '../../../server/src/live/answers.service.js';
import { LiveGateway } from '../../../server/src/live/live.gateway.js';
import { OpenDto, ReadDto, SubmitDto } from '../../../server/src/live/live.dto.js';
import { newBudget } from '../../../server/src/live/liveSocket.js';
import { LogsService, SERVER } from '../../../server/src/live/logs.service.js';
import { SoleLeases } from '../../../server/src/processes/leases.js';
import type { OperationRelay } from '../../../server/src/live/operationRelay.js';
import type { LogStore } from '../../../server/src/storage/logStore.js';
import { aStore } from '../../../server/test/helpers/memoryStore.js';
import { BrowserOutbox } from '../../src/live/outbox';
import type { ServerEnd } from './simulatedLine';
import { SimulatedLine } from './simulatedLine';

const DTOS = { [LIVE.open]: OpenDto, [LIVE.read]: ReadDto, [LIVE.submit]: SubmitDto } as const;
type Asked = keyof typeof DTOS;

/** One database for all worlds; each has a log of its own in it. */
const store = aStore();

export function aPage(id: string, order = 'a0'): Page {
  const surface = { kind: 'blank', colour: '#ffffff', ruling: 'plain', spacing: 5 } as const;
  return { id, order, title: '', width: 800, height: 600, surface, removed: false };
}

/** Somebody in the class: a browser that keeps its outbox across reloads, on a line of its own. */
export class Member {
  client: LogClient;
  readonly line: SimulatedLine;
  readonly refusals: string[] = [];

  constructor(
    readonly actor: Actor,
    private readonly world: World,
  ) {
    this.line = new SimulatedLine((end) => world.connected(end, actor));
    this.client = this.load();
  }

  /** Loads the page again: what was in memory is gone; writes to the browser's store that were begun are finished. */
  async reload(): Promise<void> {
    this.client.close();
    this.line.cut();
    await this.outboxOf()?.settled();
    this.client = this.load();
    this.line.mend();
  }

  /** What waits in the browser's store. */
  async waiting(): Promise<unknown[]> {
    const outbox = this.outboxOf();
    await outbox?.settled();
    return (await outbox?.load()) ?? [];
  }

  private outboxOf(): BrowserOutbox | undefined {
    return (this.client as unknown as { outbox: BrowserOutbox | undefined }).outbox;
  }

  /** Gives up the page at the end of a test. */
  leave(): void {
    this.client.close();
    this.line.cut();
  }

  private load(): LogClient {
    const client = new LogClient(this.world.ref, this.line, {
      situation: () => this.world.situation,
      outboxFor: (owner) =>
        new BrowserOutbox(owner, (error) => {
          throw error;
        }),
    });
    client.refused.subscribe((message) => this.refusals.push(message));
    client.lookAt('page-1');
    return client;
  }
}

/** A server that can crash, and a class of browsers, all real but for the lines between them. */
export class World {
  readonly ref: LogRef = { kind: 'sitting', id: randomUUID() };
  readonly situation: Situation = { ...FREE };
  readonly members: Member[];
  /** How pages are handed out. */
  ways: Ways = {};
  private sockets = new Map<string, ServerEnd>();
  private logs!: LogsService;
  private gateway!: LiveGateway;
  /** What happens to the next operation that is to be stored. */
  private crash: 'before' | 'after' | undefined;

  constructor(students: number) {
    this.start();
    const roles = ['teacher', ...Array.from({ length: students }, () => 'student')] as Actor['role'][];
    this.members = roles.map((role, i) => new Member({ id: `${role}-${i}`, role, tables: [] }, this));
  }

  async begin(): Promise<void> {
    const changes = ['page-1', 'page-2'].map(
      (id, i) => ({ do: 'addPage', page: aPage(id, `a${i}`) }) as const,
    );
    await this.logs.append(this.ref.id, SERVER, { id: randomUUID(), changes });
    for (const { line } of this.members) line.mend();
    await this.rest();
  }

  /** Lets the server stop before or after it stores the next operation; its answer is lost. */
  crashAtNext(when: 'before' | 'after'): void {
    this.crash = when;
  }

  /** The class goes on with pens up, and everybody has heard of it. */
  letWrite(): void {
    Object.assign(this.situation, { pensUp: true, ended: false, freedom: 'everything' });
    for (const { client } of this.members) client.resume();
  }

  /** Puts every log away that nobody has open, as after a quiet spell. */
  putAway(): void {
    const now = Date.now() + 3_600_000;
    (this.logs as unknown as { closeIdle(now: number): void }).closeIdle(now);
  }

  /** More operations at once than a browser catches up on one by one. */
  async flood(count: number): Promise<void> {
    for (let i = 0; i < count; i++) {
      const set = { title: `title ${i}` };
      const operation: Operation = { id: randomUUID(), changes: [{ do: 'patchPage', page: 'page-1', set }] };
      await this.logs.append(this.ref.id, SERVER, operation);
    }
  }

  connected(end: ServerEnd, actor: Actor): (event: string, message: object) => Promise<unknown> {
    Object.assign(end.data, { open: new Map(), budget: newBudget(), visitor: { actor } });
    this.sockets.set(end.id, end);
    return (event, message) => this.ask(end, event as Asked, message);
  }

  /** Lets everything arrive, and all that follows from it, until nobody has anything left to do. */
  async rest(): Promise<void> {
    for (let quiet = 0; quiet < 4;) {
      for (const { line } of this.members) {
        line.mend();
        line.deliverUp(Infinity);
        line.deliverDown(Infinity);
      }
      await this.settle();
      (this.gateway as unknown as { operations: OperationRelay }).operations.flush(this.ref.id);
      const isDone = this.members.every(
        ({ line, client }) => line.isQuiet && client.pending.length === 0 && client.status.get().ready,
      );
      quiet = isDone ? quiet + 1 : 0;
    }
  }

  /** Lets what is under way in the processes go on, without letting anything cross a line. */
  async settle(): Promise<void> {
    for (let i = 0; i < 3; i++) await new Promise((resolve) => setImmediate(resolve));
  }

  /** What the server has, as far as somebody may see it. */
  async truth(actor: Actor): Promise<{ marks: Map<string, Mark>; pages: Map<string, Page> }> {
    const fresh = await new LogsService(store, new SoleLeases()).open(this.ref.id);
    const marks = (await fresh.allMarks()).filter((mark) => maySee(mark, actor));
    return { marks: new Map(marks.map((mark) => [mark.id, mark])), pages: new Map(fresh.pages) };
  }

  hasStored(operation: string): boolean {
    return store.find(this.ref.id, operation) !== undefined;
  }

  /** The browser's store is begun anew too, since this one grows slower with every transaction it has had. */
  async end(): Promise<void> {
    for (const member of this.members) member.leave();
    this.logs.onModuleDestroy();
    await deleteDB('doodla');
  }

  private start(): void {
    this.crash = undefined;
    const failing = Object.create(store, {
      append: {
        value: (...args: Parameters<LogStore['append']>) => {
          if (this.logs !== logs) throw new Error('a server that has stopped stores nothing');
          return this.append(...args);
        },
      },
    }) as LogStore;
    const logs = new LogsService(failing, new SoleLeases());
    this.logs = logs;
    const access = {
      to: (_: LogRef, visitor: { actor: Actor }) => ({
        actor: visitor.actor,
        writes: true,
        situation: () => Promise.resolve({ ...this.situation }),
      }),
    };
    const classes = {
      onRules: () => undefined,
      waysOf: () => Promise.resolve(this.ways),
      turnIn: () => Promise.resolve(undefined),
    };
    const teams = { onLeft: () => undefined };
    const schools = { ofLesson: () => Promise.resolve('school') };
    this.gateway = new LiveGateway(
      access as never,
      new AnswersService(logs),
      this.logs,
      classes as never,
      teams as never,
      new SoleLeases(),
      schools as never,
    );
    this.gateway.afterInit(this.server());
  }

  private async append(...args: Parameters<LogStore['append']>): Promise<void> {
    const { crash } = this;
    if (crash === 'before') throw this.stopped();
    await store.append(...args);
    if (crash === 'after') throw this.stopped();
  }

  /** The process is gone with everything in its memory; another is started. */
  private stopped(): Error {
    for (const { line } of this.members) line.cut();
    this.sockets = new Map();
    this.logs.onModuleDestroy();
    this.start();
    return new Error('the server has stopped');
  }

  private async ask(end: ServerEnd, event: Asked, message: object): Promise<unknown> {
    const dto = plainToInstance(DTOS[event] as new () => object, message);
    if ((await validate(dto)).length > 0) throw new LiveError('bad-mark', 'nonsense');
    try {
      return await this.gateway[event as 'open'](end as never, dto as never);
    } catch (error) {
      if (error instanceof Refusal) throw new LiveError(error.code, error.message);
      const code = (error as { code?: string }).code === 'not-open' ? 'not-open' : 'failed';
      throw new LiveError(code, (error as Error).message);
    }
  }

  /** As much of a Socket.IO server as the gateway uses. */
  private server(): never {
    const { sockets } = this;
    const inRoom = (room: string) =>
      [...sockets.values()].filter((end) => end.rooms.has(room) && end.connected);
    const to = (room: string) => ({
      emit: (event: string, message: object) => {
        for (const end of inRoom(room)) end.emit(event, message);
      },
    });
    const rooms = { get: (room: string) => new Set(inRoom(room).map(({ id }) => id)) };
    return { local: { to }, on: () => undefined, sockets: { adapter: { rooms }, sockets } } as never;
  }
}

/** What a browser shows, to be compared: marks of a page whose adding was undone wait unseen for it to come back. */
export function shown({ marks, pages }: Pick<LogState, 'marks' | 'pages'>) {
  const sorted = <T>(of: Iterable<[string, T]>) => [...of].sort(([a], [b]) => (a < b ? -1 : 1));
  const seen = [...marks].filter(([, { page }]) => pages.has(page));
  return { marks: sorted(seen), pages: sorted(pages) };
}
