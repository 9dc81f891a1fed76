import { Injectable } from '@nestjs/common';
import { createHash, randomUUID } from 'node:crypto';
import { createReadStream, rmSync, statSync } from 'node:fs';
import { mkdir, readdir, rename, rm, stat, utimes, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { Settings } from '../settings/settings.js';
import { DiskSpace } from './diskSpace.js';
import type { IncomingFile } from './incomingFiles.js';

/** Longest that something is on its way in. */
const LEFT_MS = 24 * 3600 * 1000;

/** Stored files, each under the SHA-256 of its content, so that the same file is kept once. */
@Injectable()
export class FileStore {
  private readonly own = randomUUID();

  constructor(
    private readonly settings: Settings,
    private readonly disk: DiskSpace,
  ) {}

  /** Throws Problem before the disk is full. */
  checkRoom(): Promise<void> {
    return this.disk.check();
  }

  /** Folder for files on their way in, this process's own; what was left there is removed at a start. */
  get incoming(): string {
    return this.settings.redis === undefined ? this.allIncoming : join(this.allIncoming, this.own);
  }

  private get allIncoming(): string {
    return join(this.settings.data, 'incoming');
  }

  pathOf(sha256: string): string {
    return join(this.settings.data, 'files', sha256.slice(0, 2), sha256);
  }

  async prepare(): Promise<void> {
    if (this.settings.redis === undefined) await rm(this.incoming, { recursive: true, force: true });
    await mkdir(this.incoming, { recursive: true });
    await this.clearOld();
  }

  /** Moves a file that was made here from the incoming folder into the store. Returns its SHA-256. */
  async takeMade(path: string): Promise<string> {
    const hash = createHash('sha256');
    await pipeline(createReadStream(path), hash);
    return this.take({ path, sha256: hash.digest('hex') });
  }

  /** Moves a file from the incoming folder, of which it is known what it hashes to, into the store. Returns that. */
  async take({ path, sha256 }: Pick<IncomingFile, 'path' | 'sha256'>): Promise<string> {
    const target = this.pathOf(sha256);
    if (await this.touch(target)) await rm(path);
    else {
      await mkdir(dirname(target), { recursive: true });
      await rename(path, target);
    }
    return sha256;
  }

  /** How large a stored file is, bytes; 0 where it is not there. */
  sizeOf(sha256: string): number {
    return statSync(this.pathOf(sha256), { throwIfNoEntry: false })?.size ?? 0;
  }

  /**
   * Removes a stored file that nothing names any more, unless it has come in again since `before`, for something
   * that does not name it yet. Returns whether it is gone.
   */
  remove(sha256: string, before: number): boolean {
    const path = this.pathOf(sha256);
    const file = statSync(path, { throwIfNoEntry: false });
    // In one go, so that nothing comes in between the look and the removal.
    if (file && file.mtimeMs < before) rmSync(path);
    return !file || file.mtimeMs < before;
  }

  /** Stores bytes. Returns their SHA-256. */
  async put(bytes: Uint8Array): Promise<string> {
    const path = join(this.incoming, randomUUID());
    await writeFile(path, bytes);
    return this.take({ path, sha256: createHash('sha256').update(bytes).digest('hex') });
  }

  /** Of processes that share the folder, what has been there for a day is nobody's any more. */
  private async clearOld(): Promise<void> {
    for (const name of await readdir(this.allIncoming)) {
      const path = join(this.allIncoming, name);
      if (name !== this.own && Date.now() - (await stat(path)).mtimeMs > LEFT_MS)
        await rm(path, { recursive: true, force: true });
    }
  }

  /** Notes that a file has come in again. Returns false where it is not there. */
  private async touch(path: string): Promise<boolean> {
    const now = new Date();
    return utimes(path, now, now).then(
      () => true,
      (error: NodeJS.ErrnoException) => {
        if (error.code === 'ENOENT') return false;
        throw error;
      },
    );
  }
}
