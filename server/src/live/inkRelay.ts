import type { DrawMessage, DrawnMessage, DrawnPart, InkHead } from '@doodla/core';
import { INK_TICK_MS, LIVE, maySee } from '@doodla/core';
import { Logger } from '@nestjs/common';
import type { Server } from 'socket.io';
import { guarded } from '../http/failures.js';
import type { LiveSocket } from './liveSocket.js';
import { logRoom, socketsIn } from './liveSocket.js';

/**
 * Where many classes write, sending takes no more than about this part of the server's time: more is gathered into
 * fewer messages, up to so long.
 */
const SENDING_SHARE = 1 / 2;
const LONGEST_TICK_MS = 100;
/** Strokes of one socket that are being drawn at once. */
const MOST_STROKES = 20;
/** A receiver with so many messages waiting hears nothing of wet ink until it has caught up. */
const SLOW = { from: 60, until: 4 };
const LOOK_EVERY_MS = 500;
const SLOW_ROOM = 'slow';

interface Batch {
  log: string;
  page: string;
  space: InkHead['space'];
  parts: DrawnPart[];
}

/** Gathers what all pens draw and passes it on a few dozen times a second, encoded once for everybody. */
export class InkRelay {
  private readonly batches = new Map<string, Batch>();
  /** What is known of strokes by their first part, by socket and stroke. */
  private readonly heads = new WeakMap<LiveSocket, Map<string, InkHead>>();
  private readonly logger = new Logger('Ink');
  private tickMs = INK_TICK_MS;
  /** Time spent on sending since the last look, milliseconds. */
  private sendingMs = 0;
  private lookedAt = 0;

  constructor(private readonly server: Server) {}

  /** The head of a stroke, as its first part or this one tells it. */
  headOf(socket: LiveSocket, { stroke, head }: DrawMessage): InkHead | undefined {
    let known = this.heads.get(socket);
    if (!known) this.heads.set(socket, (known = new Map<string, InkHead>()));
    if (head) {
      known.delete(stroke);
      known.set(stroke, head);
      if (known.size > MOST_STROKES) known.delete(known.keys().next().value!);
    }
    return known.get(stroke);
  }

  /** Passes a part on with the next message. */
  pass({ log, page, stroke, head, from, points }: DrawMessage, author: string, { space }: InkHead): void {
    const key = `${log.id} ${page} ${space}`;
    let batch = this.batches.get(key);
    if (!batch) {
      this.batches.set(key, (batch = { log: log.id, page, space, parts: [] }));
      // Each page in its own time: all at once would come to everybody's line in one heap.
      setTimeout(
        guarded(this.logger, 'Wet ink could not be passed on', () => this.flush(key)),
        this.tickMs,
      );
    }
    batch.parts.push(head ? { stroke, head, from, points, author } : { stroke, from, points, author });
  }

  private flush(key: string): void {
    const batch = this.batches.get(key);
    if (!batch) return;
    this.batches.delete(key);
    const { space, ...message } = batch;
    const started = performance.now();
    this.send(message, space);
    this.sendingMs += performance.now() - started;
    this.look();
  }

  private send(message: DrawnMessage, space: InkHead['space']): void {
    const room = logRoom(message.log);
    const sockets = socketsIn(this.server, room);
    const actorOf = ({ data }: LiveSocket) => data.open.get(message.log)?.actor;
    if (space === 'class' && !sockets.some((socket) => actorOf(socket)?.reads)) {
      this.server.to(room).except(SLOW_ROOM).emit(LIVE.drawn, message);
      return;
    }
    for (const socket of sockets) {
      const actor = actorOf(socket);
      const parts = actor
        ? message.parts.filter(({ author }) => maySee({ page: message.page, space, author }, actor))
        : [];
      if (parts.length > 0 && !socket.rooms.has(SLOW_ROOM)) socket.emit(LIVE.drawn, { ...message, parts });
    }
  }

  /** Now and then: how much of the time goes into sending, and who has fallen behind. */
  private look(): void {
    const now = performance.now();
    const passed = now - this.lookedAt;
    if (passed < LOOK_EVERY_MS) return;
    const wanted = (this.tickMs * this.sendingMs) / passed / SENDING_SHARE;
    this.tickMs = Math.min(LONGEST_TICK_MS, Math.max(INK_TICK_MS, wanted));
    this.sendingMs = 0;
    this.lookedAt = now;
    for (const socket of this.server.sockets.sockets.values()) {
      const { length } = (socket.conn as unknown as { writeBuffer: unknown[] }).writeBuffer;
      // Rooms are joined and left at once: the adapter is in memory.
      if (length > SLOW.from) void socket.join(SLOW_ROOM);
      else if (length < SLOW.until && socket.rooms.has(SLOW_ROOM)) void socket.leave(SLOW_ROOM);
    }
  }
}
