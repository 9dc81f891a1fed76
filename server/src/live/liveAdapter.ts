import type { INestApplication } from '@nestjs/common';
import { IoAdapter } from '@nestjs/platform-socket.io';
import type { IncomingMessage } from 'node:http';
import type { ServerOptions } from 'socket.io';
import { isOwnOrigin } from '../http/origin.js';
import type { Settings } from '../settings/settings.js';

/** Socket.IO for Doodla's own pages alone. */
export class LiveAdapter extends IoAdapter {
  constructor(
    app: INestApplication,
    private readonly settings: Settings,
  ) {
    super(app);
  }

  override createIOServer(port: number, options?: ServerOptions): unknown {
    const allowRequest = (
      request: IncomingMessage,
      answer: (error: string | null | undefined, allowed: boolean) => void,
    ) => answer(null, isOwnOrigin(request, this.settings));
    return super.createIOServer(port, { ...options, allowRequest });
  }
}
