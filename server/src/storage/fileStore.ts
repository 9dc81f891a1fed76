import type { OnApplicationShutdown } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import { createHash, randomUUID } from 'node:crypto';
import { createReadStream, rmSync, statSync } from 'node:fs';
import { mkdir, readdir, rename, rm, stat, utimes, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { Settings } from '../settings/settings.js';
import { DiskSpace } from './diskSpace.js';
import type { IncomingFile } from './incomingFiles.js';
import { ObjectStore } from './objectStore.js';

/** Longest that something is on its way in. */
const LEFT_MS = 24 * 3600 * 1000;
/** What was asked for so lately is in use. */
const IN_USE_MS = 10 * 60_000;

/**
 * Stored files, each under the SHA-256 of its content, so that the same file is kept once: in the data folder, or in a store of
 * objects of which the folder has copies.
 */
@Injectable()
export class FileStore implements OnApplicationShutdown {
  private readonly own = randomUUID();
  private readonly store: ObjectStore | undefined;
  /** Copies that are on their way, for all who ask meanwhile. */
  private readonly getting = new Map<string, Promise<void>>();

  constructor(
    private readonly settings: Settings,
    private readonly disk: DiskSpace,
  ) {
    const { files } = settings;
    this.store = files === undefined ? undefined : new ObjectStore({ ...settings, files });
  }

  onApplicationShutdown(): void {
    this.store?.close();
  }

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

  /** Where a stored file lies; it is got from the store of objects first where that has it. */
  async local(sha256: string): Promise<string> {
    const path = this.pathOf(sha256);
    if (!this.store || (await this.touch(path))) return path;
    let getting = this.getting.get(sha256);
    if (!getting) {
      getting = this.get(this.store, sha256).finally(() => this.getting.delete(sha256));
      this.getting.set(sha256, getting);
    }
    await getting;
    return path;
  }

  private pathOf(sha256: string): string {
    return join(this.settings.data, 'files', sha256.slice(0, 2), sha256);
  }

  /** Throws StartError where the store of objects cannot be used. */
  async prepare(): Promise<void> {
    await this.store?.check();
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
    // Again where it is there already, which says that it has come in again.
    await this.store?.put(sha256, path);
    await this.place(path, sha256);
    return sha256;
  }

  /** How large a stored file is, bytes; 0 where it is not there. */
  async sizeOf(sha256: string): Promise<number> {
    if (this.store) return (await this.store.look(sha256))?.bytes ?? 0;
    return statSync(this.pathOf(sha256), { throwIfNoEntry: false })?.size ?? 0;
  }

  /**
   * Removes a stored file that nothing names any more, unless it has come in again since `before`, for something
   * that does not name it yet. Returns whether it is gone.
   */
  async remove(sha256: string, before: number): Promise<boolean> {
    const path = this.pathOf(sha256);
    if (this.store) {
      const found = await this.store.look(sha256);
      if (found && found.changedAt >= before) return false;
      await this.store.remove(sha256);
      await rm(path, { force: true });
      return true;
    }
    const file = statSync(path, { throwIfNoEntry: false });
    // In one go, so that nothing comes in between the look and the removal.
    if (file && file.mtimeMs < before) rmSync(path);
    return !file || file.mtimeMs < before;
  }

  /** Removes copies of what is in the store of objects that were not in use for longest, where there are too many. */
  async trim(now = Date.now()): Promise<void> {
    if (!this.store) return;
    const kept = (await this.kept()).sort((one, other) => other.usedAt - one.usedAt);
    let room = this.settings.cacheMb * 1_000_000;
    for (const { path, bytes, usedAt } of kept) {
      room -= bytes;
      // What somebody has just asked for is being read.
      if (room < 0 && now - usedAt > IN_USE_MS) await rm(path, { force: true });
    }
  }

  /** Stores bytes. Returns their SHA-256. */
  async put(bytes: Uint8Array): Promise<string> {
    const path = join(this.incoming, randomUUID());
    await writeFile(path, bytes);
    return this.take({ path, sha256: createHash('sha256').update(bytes).digest('hex') });
  }

  private async place(path: string, sha256: string): Promise<void> {
    const target = this.pathOf(sha256);
    if (await this.touch(target)) return rm(path);
    await mkdir(dirname(target), { recursive: true });
    await rename(path, target);
  }

  /** Gets a copy; one that is not what it was put there as is refused. */
  private async get(store: ObjectStore, sha256: string): Promise<void> {
    const path = join(this.incoming, randomUUID());
    if (!(await store.get(sha256, path))) return;
    const hash = createHash('sha256');
    await pipeline(createReadStream(path), hash);
    if (hash.digest('hex') === sha256) return this.place(path, sha256);
    await rm(path);
    throw new Error('a stored file has changed');
  }

  private async kept(): Promise<{ path: string; bytes: number; usedAt: number }[]> {
    const folder = join(this.settings.data, 'files');
    const all = await readdir(folder, { recursive: true, withFileTypes: true }).catch(() => []); // Nothing yet.
    const files = all.filter((entry) => entry.isFile());
    return Promise.all(
      files.map(async ({ name, parentPath }) => {
        const path = join(parentPath, name);
        const { size, mtimeMs } = await stat(path);
        return { path, bytes: size, usedAt: mtimeMs };
      }),
    );
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
