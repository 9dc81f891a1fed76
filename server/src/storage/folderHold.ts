import type { OnApplicationShutdown } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import type { DataFolder } from './dataFolder.js';

/** Lets go of the data folder when the server has stopped. */
@Injectable()
export class FolderHold implements OnApplicationShutdown {
  private folder: DataFolder | undefined;

  holds(folder: DataFolder): void {
    this.folder = folder;
  }

  onApplicationShutdown(): void {
    this.folder?.close();
  }
}
