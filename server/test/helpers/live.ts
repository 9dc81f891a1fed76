import type {
  Change,
  ClassState,
  DrawnMessage,
  Failure,
  LogRef,
  LogSnapshot,
  Mark,
  OpenReply,
  LoggedOperation,
  OperationsMessage,
  WireChange,
  StrokeMark,
} from '@doodla/core';
import { FREE } from '@doodla/core';
import { ClassClient, LiveError, LogClient, MemoryOutbox, SocketLine } from '@doodla/core/client';
import { randomUUID } from 'node:crypto';
import type { Socket } from 'socket.io-client';
import { io } from 'socket.io-client';
import { vi } from 'vitest';

const PATIENCE_MS = 30_000;

/** A live connection that remembers what it was told; what it asks for need not be allowed. */
export class LiveClient {
  readonly operations: { log: string; logged: LoggedOperation<WireChange> }[] = [];
  readonly drawn: DrawnMessage[] = [];
  private readonly line: SocketLine;
  private classroom: ClassClient | undefined;

  private constructor(readonly socket: Socket) {
    this.line = new SocketLine(socket, PATIENCE_MS);
    this.line.on<[OperationsMessage]>('operations', ({ log, logged }) => {
      for (const one of logged) this.operations.push({ log, logged: one });
    });
    this.line.on<[DrawnMessage]>('drawn', (message) => this.drawn.push(message));
  }

  static async connect(
    url: string,
    { token, cookie, about }: { token?: string; cookie?: string; about?: string },
  ): Promise<LiveClient> {
    const socket = io(url, {
      path: '/live',
      transports: ['websocket'],
      forceNew: true,
      reconnection: false,
      auth: token ? { token } : {},
      ...(about && { query: { for: about } }),
      ...(cookie && { extraHeaders: { cookie } }),
    });
    const client = new LiveClient(socket);
    await new Promise<void>((resolve, reject) => {
      socket.on('connect', resolve);
      socket.on('connect_error', reject);
    });
    return client;
  }

  /** How things stand in the class that was entered. */
  get classState(): ClassState | undefined {
    return this.classroom?.state.get();
  }

  /** The server's answer, refused or not. */
  async ask<T>(event: string, message: object): Promise<T & Partial<Failure>> {
    try {
      return await this.line.request<T & Partial<Failure>>(event, message);
    } catch (error) {
      if (!(error instanceof LiveError) || error.code === 'unreachable') throw error;
      const { code, message: sentence } = error;
      return { error: { code, message: sentence } } as T & Partial<Failure>;
    }
  }

  /** Comes into a class, and is told of it from then on. */
  async enter({ id }: LogRef): Promise<ClassState> {
    this.classroom?.close();
    const { state } = (this.classroom = new ClassClient(id, this.line));
    return vi.waitUntil(() => state.get(), PATIENCE_MS);
  }

  open(log: LogRef, since?: number) {
    return this.ask<OpenReply>('open', { log, ...(since !== undefined && { since }) });
  }

  /** All that there is in a log, as a browser comes to have it. */
  async snapshot(ref: LogRef): Promise<LogSnapshot> {
    const log = new LogClient(ref, this.line, {
      situation: () => FREE,
      outboxFor: () => new MemoryOutbox(),
    });
    await vi.waitUntil(() => log.status.get().ready, PATIENCE_MS);
    const pages = [...log.state.pages.values()];
    await Promise.all(pages.map(({ id }) => log.need(id)));
    log.close();
    const { seq } = await this.open(ref);
    return { seq, pages, marks: [...log.state.marks.values()] };
  }

  submit(log: LogRef, changes: unknown[], id: string = randomUUID(), undoes?: string) {
    return this.ask<object>('submit', {
      log,
      operation: { id, changes: changes as Change[], ...(undoes && { undoes }) },
    });
  }

  close(): void {
    this.classroom?.close();
    this.line.close();
  }
}

export function strokeBy(author: string, page: string, set: Partial<StrokeMark> = {}): Mark {
  return {
    kind: 'stroke',
    id: randomUUID(),
    page,
    author,
    space: 'class',
    order: 'a0',
    locked: false,
    group: null,
    alt: null,
    createdAt: 0,
    style: { nature: 'pen', colour: '#000000', width: 4, opacity: 1 },
    points: [1, 1, 0.5, 0, 50, 50, 0.5, 20],
    pressure: false,
    ...set,
  };
}
