import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { LiveSocket } from '../src/client/index.js';
import { SocketLine } from '../src/client/index.js';

/** A socket that is connected to a server which may be too busy to answer. */
class BusySocket implements LiveSocket {
  connected = true;
  readonly io = {};
  readonly volatile = { emit: () => undefined };
  answer: object | undefined;
  private readonly listeners = new Map<string, (() => void)[]>();

  on(event: string, callback: () => void): void {
    this.listeners.set(event, [...(this.listeners.get(event) ?? []), callback]);
  }
  off(): void {}
  emit(): void {}
  connect(): void {}
  disconnect(): void {}

  timeout(ms: number) {
    const emitWithAck = () =>
      new Promise((resolve, reject) => {
        if (this.answer) resolve(this.answer);
        else setTimeout(() => reject(new Error('operation has timed out')), ms);
      });
    return { emitWithAck };
  }

  tell(event: string): void {
    for (const listener of this.listeners.get(event) ?? []) listener();
  }
}

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

describe('a line to a server that does not answer', () => {
  it('tells whoever waits for a connection to ask again, since no new one comes', async () => {
    const socket = new BusySocket();
    const line = new SocketLine(socket, 5000);
    socket.tell('connect');
    const online = vi.fn<() => void>();
    const stop = line.onOnline(online);
    expect(online).toHaveBeenCalledTimes(1);
    const asked = expect(line.request('page', {})).rejects.toMatchObject({ code: 'unreachable' });
    await vi.advanceTimersByTimeAsync(5000);
    await asked;
    expect(online).toHaveBeenCalledTimes(1);
    await vi.advanceTimersByTimeAsync(2000);
    expect(online).toHaveBeenCalledTimes(2);
    socket.answer = { ok: true };
    expect(await line.request('page', {})).toEqual({ ok: true });
    stop();
    socket.tell('connect');
    expect(online).toHaveBeenCalledTimes(2);
  });

  it('leaves it at that where the connection is gone too, or the line is given up', async () => {
    const socket = new BusySocket();
    const line = new SocketLine(socket, 5000);
    socket.tell('connect');
    const online = vi.fn<() => void>();
    line.onOnline(online);
    for (const meanwhile of [() => (socket.connected = false), () => line.close()]) {
      socket.connected = true;
      const asked = expect(line.request('page', {})).rejects.toThrow('did not answer');
      await vi.advanceTimersByTimeAsync(5000);
      await asked;
      meanwhile();
      await vi.advanceTimersByTimeAsync(5000);
    }
    expect(online).toHaveBeenCalledTimes(1);
  });
});
