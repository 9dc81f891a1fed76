import { Injectable } from '@nestjs/common';
import { createHash, randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { access, mkdir, readdir, rename, rm, stat, writeFile } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { Settings } from '../settings/settings.js';

/** Stored files, each under the SHA-256 of its content, so that the same file is kept once. */
@Injectable()
export class FileStore {
  constructor(private readonly settings: Settings) {}

  /** Folder for files on their way in; emptied at every start. */
  get incoming(): string {
    return join(this.settings.data, 'incoming');
  }

  pathOf(sha256: string): string {
    return join(this.settings.data, 'files', sha256.slice(0, 2), sha256);
  }

  async prepare(): Promise<void> {
    await rm(this.incoming, { recursive: true, force: true });
    await mkdir(this.incoming, { recursive: true });
  }

  /** Moves a file from the incoming folder into the store. Returns its SHA-256. */
  async take(path: string): Promise<string> {
    const hash = createHash('sha256');
    await pipeline(createReadStream(path), hash);
    const sha256 = hash.digest('hex');
    const target = this.pathOf(sha256);
    if (await exists(target)) await rm(path);
    else {
      await mkdir(dirname(target), { recursive: true });
      await rename(path, target);
    }
    return sha256;
  }

  /** Drops all files but these, and those stored after `before`, which may not be noted yet. */
  async keepOnly(kept: ReadonlySet<string>, before: number): Promise<void> {
    const folder = join(this.settings.data, 'files');
    const names = await readdir(folder, { recursive: true }).catch(() => []);
    for (const name of names) {
      const path = join(folder, name);
      const info = await stat(path);
      if (info.isFile() && info.mtimeMs < before && !kept.has(basename(name))) await rm(path);
    }
  }

  /** Stores bytes. Returns their SHA-256. */
  async put(bytes: Uint8Array): Promise<string> {
    const path = join(this.incoming, randomUUID());
    await writeFile(path, bytes);
    return this.take(path);
  }
}

async function exists(path: string): Promise<boolean> {
  return access(path).then(
    () => true,
    () => false,
  );
}
