import type { Store } from './store.js';

/** A live request that the server refused. The message is fit to be shown. */
export class LiveError extends Error {
  constructor(
    readonly code: string,
    message: string,
  ) {
    super(message);
    this.name = 'LiveError';
  }
}

export type ConnectionStatus =
  | 'connecting'
  | 'online'
  /** Lost; tried again by itself. */
  | 'offline'
  /** The server does not know us: signed out, or the place in the class is gone. */
  | 'rejected';

/** A live connection to the server, however it is made. */
export interface Line {
  readonly status: Store<ConnectionStatus>;
  /** Whether what was sent has left, so that there is room for more. */
  readonly hasRoom: boolean;
  /**
   * Calls back now if online, and at every connection from here on, and a moment after an answer did not come although the
   * connection is there; until what is returned is called.
   */
  onOnline(callback: () => void): () => void;
  on<T extends unknown[]>(event: string, callback: (...message: T) => void): () => void;
  /** Sends and waits for the answer. Throws LiveError; code `unreachable` where none came. */
  request<T>(event: string, message: object): Promise<T>;
  /** Sends what has to arrive in order but needs no answer. */
  send(event: string, ...message: object[]): void;
  /** Sends what need not arrive. */
  sendVolatile(event: string, ...message: object[]): void;
  close(): void;
}
