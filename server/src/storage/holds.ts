import type { OnApplicationShutdown } from '@nestjs/common';
import { Injectable } from '@nestjs/common';

/** What nobody else may have as long as a server runs. */
export interface Held {
  close(): void | Promise<void>;
}

/** Lets go of the data folder and the database when the server has stopped. */
@Injectable()
export class Holds implements OnApplicationShutdown {
  private readonly held: Held[] = [];

  add(...held: readonly Held[]): void {
    this.held.push(...held);
  }

  async onApplicationShutdown(): Promise<void> {
    for (const one of this.held) await one.close();
  }
}
