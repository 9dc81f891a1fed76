import { Injectable } from '@nestjs/common';
import { createHash, randomUUID } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { access, mkdir, rename, rm, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { Settings } from '../settings/settings.js';
import { DiskSpace } from './diskSpace.js';
import type { IncomingFile } from './incomingFiles.js';

/** Stored files, each under the SHA-256 of its content, so that the same file is kept once. */
@Injectable()
export class FileStore {
  constructor(
    private readonly settings: Settings,
    private readonly disk: DiskSpace,
  ) {}

  /** Throws Problem before the disk is full. */
  checkRoom(): Promise<void> {
    return this.disk.check();
  }

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

  /** Moves a file that was made here from the incoming folder into the store. Returns its SHA-256. */
  async takeMade(path: string): Promise<string> {
    const hash = createHash('sha256');
    await pipeline(createReadStream(path), hash);
    return this.take({ path, sha256: hash.digest('hex') });
  }

  /** Moves a file from the incoming folder, of which it is known what it hashes to, into the store. Returns that. */
  async take({ path, sha256 }: Pick<IncomingFile, 'path' | 'sha256'>): Promise<string> {
    const target = this.pathOf(sha256);
    if (await exists(target)) await rm(path);
    else {
      await mkdir(dirname(target), { recursive: true });
      await rename(path, target);
    }
    return sha256;
  }

  /** Removes a stored file that nothing names any more. */
  async remove(sha256: string): Promise<void> {
    await rm(this.pathOf(sha256), { force: true });
  }

  /** Stores bytes. Returns their SHA-256. */
  async put(bytes: Uint8Array): Promise<string> {
    const path = join(this.incoming, randomUUID());
    await writeFile(path, bytes);
    return this.take({ path, sha256: createHash('sha256').update(bytes).digest('hex') });
  }
}

async function exists(path: string): Promise<boolean> {
  return access(path).then(
    () => true,
    () => false,
  );
}
