import type { INestApplication } from '@nestjs/common';
import { Logger } from '@nestjs/common';
import { IoAdapter } from '@nestjs/platform-socket.io';
import type { Redis } from 'ioredis';
import type { Server as HttpServer, IncomingMessage } from 'node:http';
import { createAdapter } from '@socket.io/redis-adapter';
import type { Server, ServerOptions } from 'socket.io';
import { logFailure } from '../http/failures.js';
import { isFromExtension, withoutCookies } from '../http/companionOrigin.js';
import { inRequest } from '../http/requestIds.js';
import type { PassingOn } from '../processes/passingOn.js';
import { namespaceOf, redisLine } from '../processes/redis.js';
import { isOwnOrigin } from '../http/origin.js';
import type { Settings } from '../settings/settings.js';

/** Where others can go on, a process that does not answer is given up soon; milliseconds. */
const SOON_MISSED = { pingInterval: 5000, pingTimeout: 8000 };

/** Socket.IO for Doodla's own pages, and for companions by their tokens. */
export class LiveAdapter extends IoAdapter {
  private readonly logger = new Logger('Live');
  private lines: [Redis, Redis] | undefined;

  constructor(
    app: INestApplication,
    private readonly settings: Settings,
    private readonly passingOn: PassingOn | undefined,
  ) {
    super(app);
  }

  override createIOServer(port: number, options?: ServerOptions): unknown {
    const allowRequest = (
      request: IncomingMessage,
      answer: (error: string | null | undefined, allowed: boolean) => void,
    ) => {
      const isCompanion = isFromExtension(request);
      if (isCompanion) withoutCookies(request);
      answer(null, isCompanion || isOwnOrigin(request, this.settings));
    };
    const { redis } = this.settings;
    if (redis === undefined || !this.passingOn)
      return super.createIOServer(port, { ...options, allowRequest });
    const server = super.createIOServer(port, { ...options, ...SOON_MISSED, allowRequest }) as Server;
    this.lines = [redisLine(redis, true), redisLine(redis, true)];
    server.adapter(createAdapter(...this.lines, { key: namespaceOf(this.settings.database) }));
    this.passingOn.guard(server.httpServer as HttpServer);
    return server;
  }

  override async close(...[server]: Parameters<IoAdapter['close']>): Promise<void> {
    // It waits for everybody who is connected, and what is passed on is not its own.
    this.passingOn?.end();
    await super.close(server);
  }

  override async dispose(): Promise<void> {
    await super.dispose();
    for (const line of this.lines ?? []) line.disconnect();
  }

  /**
   * Hears the messages of a connection and acknowledges each with what its handler gives. Plain listeners: the
   * Observables of Nest's own adapter hold about 4 kB for each kind of message, on each of a thousand connections.
   */
  override bindMessageHandlers(...[socket, handlers]: Parameters<IoAdapter['bindMessageHandlers']>): void {
    const { id } = socket as { id: string };
    for (const { message, callback } of handlers)
      socket.on(String(message), (...payload: unknown[]) => {
        const { data, ack } = this.mapPayload(payload.length > 1 ? payload : payload[0]) as {
          data: unknown;
          ack?: (response: unknown) => void;
        };
        Promise.resolve(inRequest(id, () => callback(data, ack) as Promise<unknown>)).then(
          (response) => {
            if (response !== undefined) ack?.(response);
          },
          (error: unknown) => logFailure(this.logger, 'A message was not answered', error),
        );
      });
  }
}
