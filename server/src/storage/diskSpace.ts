import { Injectable } from '@nestjs/common';
import { statfs } from 'node:fs/promises';
import { Problem } from '../http/problem.js';
import { Settings } from '../settings/settings.js';

/** Kept free for what is written in class; nothing large is taken in beyond it. Bytes. */
const RESERVE = 300_000_000;

/** How much room there is on the disk of the data folder. */
@Injectable()
export class DiskSpace {
  readonly reserve = RESERVE;

  constructor(private readonly settings: Settings) {}

  /** Bytes. */
  async free(): Promise<number> {
    const { bavail, bsize } = await statfs(this.settings.data);
    return bavail * bsize;
  }

  /** Throws Problem before the disk is full. */
  async check(): Promise<void> {
    if ((await this.free()) < RESERVE) throw diskFull();
  }
}

export function diskFull(): Problem {
  return new Problem(
    507,
    'disk-full',
    'The server’s disk is nearly full, so no more files are taken in. What is written in class is still kept. Please tell the school’s technical person.',
  );
}

/** Whether something failed because the disk is full, by what the system and SQLite call that. */
export function isFull(error: unknown): boolean {
  const { code } = error as { code?: string };
  return code === 'ENOSPC' || code === 'SQLITE_FULL';
}
