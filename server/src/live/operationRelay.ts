import type { OperationsMessage } from '@doodla/core';
import { concernsPages, LIVE, packLogged, visibleTo } from '@doodla/core';
import { Logger } from '@nestjs/common';
import type { Server } from 'socket.io';
import { guarded } from '../http/failures.js';
import type { LiveSocket } from './liveSocket.js';
import { logRoom, socketsIn } from './liveSocket.js';
import type { FreshOperation } from './logs.service.js';

/** After a message of a log, what is stored in it so soon afterwards goes into the next one together. */
const GATHER_MS = 16;

interface Gathering {
  fresh: FreshOperation[];
  /** Told once what is gathered has gone out. */
  waiters: (() => void)[];
  timer: NodeJS.Timeout;
}

/**
 * Tells all who have a log open of what is stored in it, in the order of the numbers: the first at once, what
 * comes thick and fast together, since a message costs its receivers and the server far more than a stroke in it.
 */
export class OperationRelay {
  private readonly logger = new Logger('Operations');
  private readonly gathering = new Map<string, Gathering>();

  constructor(private readonly server: Server) {}

  tell(log: string, fresh: FreshOperation): void {
    const gathered = this.gathering.get(log);
    if (!gathered) {
      this.send(log, [fresh]);
      this.gathering.set(log, { fresh: [], waiters: [], timer: this.later(log) });
      return;
    }
    gathered.fresh.push(fresh);
    // A class may be shown a new page the moment it is there.
    if (concernsPages(fresh.logged.operation.changes)) this.flush(log);
  }

  /** Resolves when everybody has been sent what was stored up to now. */
  told(log: string): Promise<void> {
    const gathered = this.gathering.get(log);
    if (!gathered?.fresh.length) return Promise.resolve();
    return new Promise((resolve) => gathered.waiters.push(resolve));
  }

  /** Sends what has been gathered, so that what is sent next comes after it. */
  flush(log: string): void {
    const gathered = this.gathering.get(log);
    if (!gathered) return;
    clearTimeout(gathered.timer);
    this.gathering.delete(log);
    if (gathered.fresh.length === 0) return;
    this.gathering.set(log, { fresh: [], waiters: [], timer: this.later(log) });
    try {
      this.send(log, gathered.fresh);
    } finally {
      // It is stored, whoever could be told.
      for (const done of gathered.waiters) done();
    }
  }

  private later(log: string): NodeJS.Timeout {
    const flush = guarded(this.logger, 'Nobody could be told what was stored', () => this.flush(log));
    return setTimeout(flush, GATHER_MS);
  }

  private send(log: string, fresh: readonly FreshOperation[]): void {
    const sockets = socketsIn(this.server, logRoom(log));
    const isLimited = sockets.some(({ data }) => data.open.get(log)?.actor.reads);
    // Most is for all to see, and is encoded once.
    if (!isLimited && fresh.every(isForAll)) {
      const message: OperationsMessage = { log, logged: fresh.map(({ logged }) => packLogged(logged)) };
      this.server.local.to(logRoom(log)).emit(LIVE.operations, message);
      return;
    }
    for (const socket of sockets) this.sendTo(socket, log, fresh);
  }

  private sendTo(socket: LiveSocket, log: string, fresh: readonly FreshOperation[]): void {
    const { actor } = socket.data.open.get(log)!;
    const logged = fresh.map((one) => packLogged(visibleTo(actor, one.logged, one.inverse, one.known)));
    const message: OperationsMessage = { log, logged };
    socket.emit(LIVE.operations, message);
  }
}

function isForAll({ logged: { operation }, known }: FreshOperation): boolean {
  return operation.changes.every((change) => {
    if (change.do === 'add') return change.mark.space === 'class';
    return !('mark' in change) || known(change.mark)?.space === 'class';
  });
}
