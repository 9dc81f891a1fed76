import type { Request } from 'express';
import type { StorageEngine } from 'multer';
import { createHash, randomUUID } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import { join } from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';

/** A file as it has come in. */
export interface IncomingFile {
  path: string;
  sha256: string;
  size: number;
}

/** Writes uploads into a folder, each under a name of its own, and reckons on the way what they hash to. */
export class IncomingFiles implements StorageEngine {
  constructor(private readonly folder: string) {}

  _handleFile(
    _request: Request,
    file: Express.Multer.File,
    done: (error?: unknown, info?: Partial<Express.Multer.File> & IncomingFile) => void,
  ): void {
    const path = join(this.folder, randomUUID());
    const hash = createHash('sha256');
    let size = 0;
    const reckon = new Transform({
      transform(chunk: Buffer, _encoding, next) {
        hash.update(chunk);
        size += chunk.length;
        next(null, chunk);
      },
    });
    pipeline(file.stream, reckon, createWriteStream(path)).then(
      () => done(null, { path, size, sha256: hash.digest('hex') }),
      (error: unknown) => void rm(path, { force: true }).finally(() => done(error)),
    );
  }

  _removeFile(_request: Request, file: Express.Multer.File, done: (error: Error | null) => void): void {
    rm(file.path, { force: true }).then(
      () => done(null),
      (error: Error) => done(error),
    );
  }
}
