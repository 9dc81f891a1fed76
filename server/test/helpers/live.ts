import type {
  Change,
  ClassChange,
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
  PieceMessage,
  StrokeMark,
} from '@doodla/core';
import { unpackMark, withClassChange } from '@doodla/core';
import { randomUUID } from 'node:crypto';
import type { Socket } from 'socket.io-client';
import { io } from 'socket.io-client';
import { vi } from 'vitest';

/** A live connection that remembers what it was told. */
export class LiveClient {
  readonly operations: { log: string; logged: LoggedOperation<WireChange> }[] = [];
  readonly drawn: DrawnMessage[] = [];
  private readonly pieces: PieceMessage[] = [];
  classState: ClassState | undefined;

  private constructor(readonly socket: Socket) {
    socket.on('operations', ({ log, logged }: OperationsMessage) => {
      for (const one of logged) this.operations.push({ log, logged: one });
    });
    socket.on('drawn', (message: DrawnMessage) => this.drawn.push(message));
    socket.on('piece', (piece: PieceMessage) => this.pieces.push(piece));
    socket.on('class', (change: ClassChange) => {
      if (this.classState) this.classState = withClassChange(this.classState, change);
    });
  }

  static async connect(
    url: string,
    { token, cookie }: { token?: string; cookie?: string },
  ): Promise<LiveClient> {
    const socket = io(url, {
      path: '/live',
      transports: ['websocket'],
      forceNew: true,
      reconnection: false,
      auth: token ? { token } : {},
      ...(cookie && { extraHeaders: { cookie } }),
    });
    const client = new LiveClient(socket);
    await new Promise<void>((resolve, reject) => {
      socket.on('connect', resolve);
      socket.on('connect_error', reject);
    });
    return client;
  }

  async ask<T>(event: string, message: object): Promise<T & Partial<Failure>> {
    const reply = (await this.socket.timeout(30_000).emitWithAck(event, message)) as T & Partial<Failure>;
    if (event === 'enter' && !reply.error) this.classState = reply as unknown as ClassState;
    return reply;
  }

  open(log: LogRef, since?: number) {
    return this.ask<OpenReply>('open', { log, ...(since !== undefined && { since }) });
  }

  /** The marks of a page of an open log, as they come. */
  async read(log: LogRef, page: string): Promise<Mark[]> {
    this.pieces.length = 0;
    await this.ask('read', { log, page });
    await vi.waitUntil(() => this.pieces.at(-1)?.last, 30_000);
    return this.pieces.flatMap(({ marks }) => marks.map(unpackMark));
  }

  /** All that there is in a log. */
  async snapshot(log: LogRef): Promise<LogSnapshot> {
    const { seq, pages, written } = await this.open(log);
    const marks: Mark[] = [];
    for (const page of written!) marks.push(...(await this.read(log, page)));
    return { seq, pages: pages!, marks };
  }

  submit(log: LogRef, changes: unknown[], id: string = randomUUID(), undoes?: string) {
    return this.ask<object>('submit', {
      log,
      operation: { id, changes: changes as Change[], ...(undoes && { undoes }) },
    });
  }

  close(): void {
    this.socket.disconnect();
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
