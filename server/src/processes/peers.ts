import { Injectable } from '@nestjs/common';
import type { Server } from 'socket.io';
import { Settings } from '../settings/settings.js';

/** What the processes tell each other. What of it is lost while Redis is away is nothing that is kept. */
export interface PeerEvents {
  /** A session was closed. */
  signedOut: [session: string];
  /** A school was changed. */
  schools: [];
  /** Somebody changed a class whose lesson they did not have in hand. */
  sitting: [id: string];
}

/** Tells the other processes of this installation, and hears them. */
@Injectable()
export class Peers {
  private server: Server | undefined;
  private readonly listeners: [event: string, listener: (...values: unknown[]) => void][] = [];

  constructor(private readonly settings: Settings) {}

  /** `server` reaches the other processes by its adapter. */
  attach(server: Server): void {
    this.server = server;
    for (const [event, listener] of this.listeners) server.on(event, listener);
  }

  tell<Event extends keyof PeerEvents>(event: Event, ...values: PeerEvents[Event]): void {
    if (this.settings.redis !== undefined) this.server?.serverSideEmit(`peer:${event}`, ...values);
  }

  on<Event extends keyof PeerEvents>(event: Event, listener: (...values: PeerEvents[Event]) => void): void {
    const name: string = `peer:${event}`;
    const heard = listener as (...values: unknown[]) => void;
    this.listeners.push([name, heard]);
    this.server?.on(name, heard);
  }
}
