import type { ConnectionStatus, Line } from '../../src/client/index.js';
import { LiveError, Store } from '../../src/client/index.js';

type Listener = (...message: never[]) => void;

interface Sent {
  event: string;
  message: Record<string, unknown>;
}

/** A connection whose other end is the test. */
export class FakeLine implements Line {
  /** What was asked for and answered. */
  readonly requests: Sent[] = [];
  /** What was sent without an answer. */
  readonly sent: Sent[] = [];
  /** Answers by event; an error refuses. */
  answers: Record<string, unknown> = {};
  /** Answers where there is none of those. */
  answer: (event: string, message: object) => unknown = () => ({});
  readonly status = new Store<ConnectionStatus>('online');
  readonly hasRoom = true;
  private readonly listeners = new Map<string, Listener[]>();
  private readonly onlineListeners: (() => void)[] = [];

  get isOnline(): boolean {
    return this.status.get() === 'online';
  }

  set isOnline(is: boolean) {
    this.status.set(is ? 'online' : 'offline');
  }

  onOnline(callback: () => void): () => void {
    this.onlineListeners.push(callback);
    if (this.isOnline) callback();
    return () => undefined;
  }

  on<T extends unknown[]>(event: string, callback: (...message: T) => void): () => void {
    this.listeners.set(event, [...(this.listeners.get(event) ?? []), callback as unknown as Listener]);
    return () => this.listeners.delete(event);
  }

  request<T>(event: string, message: object): Promise<T> {
    if (!this.isOnline) return Promise.reject(new LiveError('unreachable', 'There is no connection.'));
    this.requests.push({ event, message: message as Record<string, unknown> });
    const answer = this.answers[event] ?? this.answer(event, message);
    return answer instanceof Error ? Promise.reject(answer) : Promise.resolve(answer as T);
  }

  send(event: string, ...[message]: object[]): void {
    this.sent.push({ event, message: message as Record<string, unknown> });
  }

  sendVolatile(event: string, ...messages: object[]): void {
    this.send(event, ...messages);
  }

  close(): void {
    this.isOnline = false;
  }

  /** What the server tells. */
  tell(event: string, message: object): void {
    for (const listener of this.listeners.get(event) ?? []) listener(message as never);
  }

  comeBack(): void {
    this.isOnline = true;
    for (const listener of this.onlineListeners) listener();
  }
}
