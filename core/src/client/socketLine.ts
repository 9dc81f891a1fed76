import type { ProblemReply } from '../api/problem.js';
import type { Failure } from '../live/messages.js';
import type { ConnectionStatus, Line } from './line.js';
import { LiveError } from './line.js';
import { Signal } from './signal.js';
import { Store } from './store.js';

// What a message holds is for those to say who listen, as Socket.IO itself types it.
// eslint-disable-next-line @typescript-eslint/no-explicit-any
type Listener = (...message: any[]) => void;

/** What a line needs of a Socket.IO client's socket. */
export interface LiveSocket {
  readonly connected: boolean;
  readonly volatile: { emit(event: string, ...message: object[]): unknown };
  /** Its manager, with what waits to leave. */
  readonly io: object;
  on(event: string, callback: Listener): unknown;
  off(event: string, callback: Listener): unknown;
  emit(event: string, ...message: object[]): unknown;
  timeout(ms: number): { emitWithAck(event: string, message: object): Promise<unknown> };
  connect(): unknown;
  disconnect(): unknown;
}

const REPLY_MS = 15_000;
/** What was not answered although the line is there is asked again after a moment. */
const AGAIN_MS = 1000;
/** Messages waiting to leave; with more, a live picture leaves frames out. */
const MOST_WAITING = 4;

/** A line over a Socket.IO connection. */
export class SocketLine implements Line {
  readonly status = new Store<ConnectionStatus>('connecting');
  private readonly online = new Signal();
  private again: ReturnType<typeof setTimeout> | undefined;

  /** `replyMs`: so long is waited for an answer; `say`: a refusal in the language of whoever reads it. */
  constructor(
    readonly socket: LiveSocket,
    private readonly replyMs = REPLY_MS,
    private readonly say = ({ message }: ProblemReply) => message,
  ) {
    socket.on('connect', () => this.status.set('online'));
    socket.on('connect', () => this.online.tell());
    socket.on('disconnect', (reason: string) => {
      this.status.set('offline');
      if (reason === 'io server disconnect') socket.connect();
    });
    socket.on('connect_error', ({ message }: Error) =>
      this.status.set(message === 'sign-in' ? 'rejected' : 'offline'),
    );
  }

  onOnline(callback: () => void): () => void {
    if (this.status.get() === 'online') callback();
    return this.online.subscribe(callback);
  }

  on<T extends unknown[]>(event: string, callback: (...message: T) => void): () => void {
    this.socket.on(event, callback);
    return () => this.socket.off(event, callback);
  }

  async request<T>(event: string, message: object): Promise<T> {
    // The socket would keep the message and send it after the next connection, ahead of everything else.
    if (!this.socket.connected) throw this.unreachable('There is no connection.');
    const reply: unknown = await this.socket
      .timeout(this.replyMs)
      .emitWithAck(event, message)
      .catch(() => {
        this.tellAgain();
        throw this.unreachable('The server did not answer.');
      });
    if (isFailure(reply)) throw new LiveError(reply.error.code, this.say(reply.error));
    return reply as T;
  }

  /** Whoever was not answered goes on as after a new connection: a busy server would be waited for in vain. */
  private tellAgain(): void {
    clearTimeout(this.again);
    this.again = setTimeout(() => this.socket.connected && this.online.tell(), AGAIN_MS);
  }

  private unreachable(message: string): LiveError {
    return new LiveError('unreachable', this.say({ code: 'unreachable', message }));
  }

  send(event: string, ...message: object[]): void {
    this.socket.emit(event, ...message);
  }

  get hasRoom(): boolean {
    const { engine } = this.socket.io as { engine?: { writeBuffer: unknown[] } };
    return this.socket.connected && (engine?.writeBuffer.length ?? 0) < MOST_WAITING;
  }

  sendVolatile(event: string, ...message: object[]): void {
    this.socket.volatile.emit(event, ...message);
  }

  close(): void {
    clearTimeout(this.again);
    this.socket.disconnect();
  }
}

function isFailure(reply: unknown): reply is Failure {
  return typeof reply === 'object' && reply !== null && 'error' in reply;
}
