import type { DrawMessage, DrawnMessage, DrawnPart, InkHead } from '@doodla/core';
import { INK_TICK_MS, LIVE, maySee } from '@doodla/core';
import type { Server } from 'socket.io';
import type { LiveSocket } from './liveSocket.js';
import { logRoom, socketsIn } from './liveSocket.js';

/**
 * Sending takes no more than this part of the server's time: where many classes write, more is gathered into
 * fewer messages, up to so long.
 */
const SENDING_SHARE = 1 / 4;
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
  private timer: NodeJS.Timeout | undefined;
  private tickMs = INK_TICK_MS;
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
    if (!batch) this.batches.set(key, (batch = { log: log.id, page, space, parts: [] }));
    batch.parts.push(head ? { stroke, head, from, points, author } : { stroke, from, points, author });
    this.timer ??= setTimeout(() => this.flush(), this.tickMs);
  }

  private flush(): void {
    const started = performance.now();
    this.timer = undefined;
    this.lookForSlow();
    for (const { space, ...batch } of this.batches.values()) this.send(batch, space);
    this.batches.clear();
    const needed = (performance.now() - started) / SENDING_SHARE;
    this.tickMs = Math.min(LONGEST_TICK_MS, Math.max(INK_TICK_MS, needed));
  }

  private send(message: DrawnMessage, space: InkHead['space']): void {
    const room = logRoom(message.log);
    if (space === 'class') this.server.to(room).except(SLOW_ROOM).emit(LIVE.drawn, message);
    else
      for (const socket of socketsIn(this.server, room)) {
        const access = socket.data.open.get(message.log);
        if (access && maySee(space, access.actor)) socket.emit(LIVE.drawn, message);
      }
  }

  private lookForSlow(): void {
    const now = performance.now();
    if (now - this.lookedAt < LOOK_EVERY_MS) return;
    this.lookedAt = now;
    for (const socket of this.server.sockets.sockets.values()) {
      const { length } = (socket.conn as unknown as { writeBuffer: unknown[] }).writeBuffer;
      // Rooms are joined and left at once: the adapter is in memory.
      if (length > SLOW.from) void socket.join(SLOW_ROOM);
      else if (length < SLOW.until && socket.rooms.has(SLOW_ROOM)) void socket.leave(SLOW_ROOM);
    }
  }
}
