import type { Failure } from '@doodla/core';
import type { ConnectionStatus, Line } from '@doodla/core/client';
import { LiveError, Store } from '@doodla/core/client';
import { io } from 'socket.io-client';
import type { Socket } from 'socket.io-client';

const REPLY_MS = 15_000;
/** Messages waiting to leave; with more, a live picture leaves frames out. */
const MOST_WAITING = 4;

/** The one live connection of a browser tab. */
export class Connection implements Line {
  readonly status = new Store<ConnectionStatus>('connecting');
  private readonly socket: Socket;

  /** Students give their token; teachers are known by their cookie. */
  constructor(token?: string) {
    this.socket = io({
      path: '/live',
      transports: ['websocket', 'polling'],
      tryAllTransports: true,
      reconnectionDelay: 300,
      reconnectionDelayMax: 3000,
      auth: token === undefined ? {} : { token },
    });
    this.socket.on('connect', () => this.status.set('online'));
    this.socket.on('disconnect', (reason) => {
      this.status.set('offline');
      if (reason === 'io server disconnect') this.socket.connect();
    });
    this.socket.on('connect_error', ({ message }) => {
      this.status.set(message === 'sign-in' ? 'rejected' : 'offline');
    });
  }

  /** Calls back now if online, and at every connection from here on. */
  onOnline(callback: () => void): () => void {
    if (this.status.get() === 'online') callback();
    this.socket.on('connect', callback);
    return () => this.socket.off('connect', callback);
  }

  on<T extends unknown[]>(event: string, callback: (...message: T) => void): () => void {
    this.socket.on(event, callback);
    return () => this.socket.off(event, callback);
  }

  /** Sends and waits for the answer. Throws LiveError; code `unreachable` where none came. */
  async request<T>(event: string, message: object): Promise<T> {
    // The socket would keep the message and send it after the next connection, ahead of everything else.
    if (!this.socket.connected) throw new LiveError('unreachable', 'There is no connection.');
    const reply: unknown = await this.socket
      .timeout(REPLY_MS)
      .emitWithAck(event, message)
      .catch(() => {
        throw new LiveError('unreachable', 'The server did not answer.');
      });
    if (isFailure(reply)) throw new LiveError(reply.error.code, reply.error.message);
    return reply as T;
  }

  /** Sends what has to arrive in order but needs no answer. */
  send(event: string, ...message: object[]): void {
    this.socket.emit(event, ...message);
  }

  /** Whether what was sent has left, so that there is room for more. */
  get hasRoom(): boolean {
    const { engine } = this.socket.io as unknown as { engine: { writeBuffer: unknown[] } | undefined };
    return this.socket.connected && (engine?.writeBuffer.length ?? 0) < MOST_WAITING;
  }

  /** Sends what need not arrive. */
  sendVolatile(event: string, ...message: object[]): void {
    this.socket.volatile.emit(event, ...message);
  }

  close(): void {
    this.socket.disconnect();
  }
}

function isFailure(reply: unknown): reply is Failure {
  return typeof reply === 'object' && reply !== null && 'error' in reply;
}
