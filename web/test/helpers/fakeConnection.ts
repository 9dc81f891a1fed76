import type { Connection } from '../../src/live/connection';
import { LiveError } from '../../src/live/connection';

interface Sent {
  event: string;
  message: Record<string, unknown>;
}

/** A connection whose other end is the test. */
export class FakeConnection {
  /** What was asked for and answered. */
  readonly requests: Sent[] = [];
  /** What was sent without an answer. */
  readonly sent: Sent[] = [];
  /** Answers by event; an empty one where there is none. */
  answers: Record<string, unknown> = {};
  isOnline = true;
  readonly status = { get: () => (this.isOnline ? 'online' : 'offline') };
  private readonly listeners = new Map<string, ((message: never) => void)[]>();
  private readonly onlineListeners: (() => void)[] = [];

  /** As the classes under test take it. */
  get asConnection(): Connection {
    return this as unknown as Connection;
  }

  onOnline(callback: () => void): () => void {
    this.onlineListeners.push(callback);
    if (this.isOnline) callback();
    return () => undefined;
  }

  on(event: string, callback: (message: never) => void): () => void {
    this.listeners.set(event, [...(this.listeners.get(event) ?? []), callback]);
    return () => this.listeners.delete(event);
  }

  request(event: string, message: Record<string, unknown>): Promise<unknown> {
    if (!this.isOnline) return Promise.reject(new LiveError('unreachable', 'There is no connection.'));
    this.requests.push({ event, message });
    return Promise.resolve(this.answers[event] ?? {});
  }

  send(event: string, message: Record<string, unknown>): void {
    this.sent.push({ event, message });
  }

  sendVolatile(event: string, message: Record<string, unknown>): void {
    this.send(event, message);
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
