import { ValidationPipe } from '@nestjs/common';
import { MAX_OPERATION_LENGTH, Refusal } from '@doodla/core';
import type { DefaultEventsMap, Server, Socket } from 'socket.io';
import type { Visitor } from '../people/visitor.js';
import type { Access } from './access.service.js';
import type { Audience } from './classes.service.js';
import { TokenBucket } from './tokenBucket.js';

/** What is kept of a connection. */
export interface LiveData {
  visitor: Visitor;
  /** Logs that this socket has open, with what it may do in them. */
  open: Map<string, Access>;
  /** Whether whoever is at the other end looks at something else. */
  away: boolean;
  budget: Budget;
}

/** How much one person may send and ask for, by however many connections. */
export interface Budget {
  /** Operations, and their bytes. */
  submits: TokenBucket;
  bytes: TokenBucket;
  /** Messages to the class. */
  words: TokenBucket;
  /** Wet ink, pointing and what a hand moves. */
  draws: TokenBucket;
  /** Marks that are read; more have to wait. */
  reads: TokenBucket;
  /** Pages that are being read now. */
  reading: number;
}

export type LiveSocket = Socket<DefaultEventsMap, DefaultEventsMap, DefaultEventsMap, LiveData>;

export function newBudget(): Budget {
  return {
    submits: new TokenBucket(400, 60),
    bytes: new TokenBucket(16 * MAX_OPERATION_LENGTH, MAX_OPERATION_LENGTH / 2),
    words: new TokenBucket(10, 1),
    draws: new TokenBucket(600, 150),
    reads: new TokenBucket(100_000, 10_000),
    reading: 0,
  };
}

export const logRoom = (id: string) => `log ${id}`;
export const classRoom = (sitting: string) => `class ${sitting}`;
export const audienceRoom = (sitting: string, audience: Audience) => `${audience} of ${sitting}`;

/** Who is in a room. */
export function socketsIn(server: Server, room: string): LiveSocket[] {
  const ids = server.sockets.adapter.rooms.get(room) ?? new Set();
  return [...ids].flatMap((id) => (server.sockets.sockets.get(id) as LiveSocket | undefined) ?? []);
}

export const liveValidation = new ValidationPipe({
  transform: true,
  whitelist: true,
  exceptionFactory: () => new Refusal('bad-mark'),
});

/**
 * All gateways share one server. Messages are not compressed: it would be done for each receiver anew, and
 * ink and screens are packed already.
 */
export const GATEWAY = {
  path: '/live',
  serveClient: false,
  maxHttpBufferSize: 4 * MAX_OPERATION_LENGTH,
  perMessageDeflate: false,
};
