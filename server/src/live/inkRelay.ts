import type { Actor, DrawMessage, DrawnPart, InkHead, Space } from '@doodla/core';
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
  /** When its first part came. */
  since: number;
  log: string;
  page: string;
  /** By the space in which they are drawn. */
  parts: Map<Space, DrawnPart[]>;
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

  /** `told`: how long the first part of what goes out has waited, milliseconds. */
  constructor(
    private readonly server: Server,
    private readonly told: (waitedMs: number) => void = () => undefined,
  ) {}

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
    const key = `${log.id} ${page}`;
    let batch = this.batches.get(key);
    if (!batch) {
      this.batches.set(key, (batch = { since: performance.now(), log: log.id, page, parts: new Map() }));
      // Each page in its own time: all at once would come to everybody's line in one heap.
      setTimeout(
        guarded(this.logger, 'Wet ink could not be passed on', () => this.flush(key)),
        this.tickMs,
      );
    }
    const part = head ? { stroke, head, from, points, author } : { stroke, from, points, author };
    const others = batch.parts.get(space);
    if (others) others.push(part);
    else batch.parts.set(space, [part]);
  }

  private flush(key: string): void {
    const batch = this.batches.get(key);
    if (!batch) return;
    this.batches.delete(key);
    const started = performance.now();
    this.send(batch);
    const sent = performance.now();
    this.told(sent - batch.since);
    this.sendingMs += sent - started;
    this.look();
  }

  private send(batch: Batch): void {
    const { log, page } = batch;
    const room = logRoom(log);
    const sockets = socketsIn(this.server, room);
    const actorOf = ({ data }: LiveSocket) => data.open.get(log)?.actor;
    const all = [...batch.parts.values()].flat();
    const isForAll = batch.parts.size === 1 && batch.parts.has('class');
    if (isForAll && !sockets.some((socket) => actorOf(socket)?.reads)) {
      this.server.local.to(room).except(SLOW_ROOM).emit(LIVE.drawn, { log, page, parts: all });
      return;
    }
    for (const socket of sockets) {
      const actor = actorOf(socket);
      const parts = actor?.role === 'teacher' ? all : actor ? seenBy(actor, batch) : [];
      if (parts.length > 0 && !socket.rooms.has(SLOW_ROOM)) socket.emit(LIVE.drawn, { log, page, parts });
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

/** What a student sees of what is drawn: of sixty copies one, so the others are not even looked at. */
function seenBy(actor: Actor, { page, parts }: Batch): DrawnPart[] {
  const spaces: Space[] = [
    'class',
    `student:${actor.id}`,
    ...actor.tables.map((id) => `table:${id}` as const),
  ];
  if (actor.shown) spaces.push(actor.shown.space);
  return [...new Set(spaces)].flatMap((space) =>
    (parts.get(space) ?? []).filter(({ author }) => maySee({ page, space, author }, actor)),
  );
}
