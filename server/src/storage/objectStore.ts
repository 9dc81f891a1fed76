import {
  DeleteObjectCommand,
  GetObjectCommand,
  HeadBucketCommand,
  HeadObjectCommand,
  PutObjectCommand,
  S3Client,
} from '@aws-sdk/client-s3';
import { createReadStream, createWriteStream } from 'node:fs';
import { rm, stat } from 'node:fs/promises';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { setTimeout as sleep } from 'node:timers/promises';
import type { Settings } from '../settings/settings.js';
import { StartError } from './dataFolder.js';

/** An object as the store tells of it. */
export interface StoredObject {
  bytes: number;
  /** When it was last put there, milliseconds since 1970-01-01 UTC, by the store's clock. */
  changedAt: number;
}

/** Longest that the store may be silent, milliseconds. */
const PATIENCE_MS = 30_000;
const TRIES = 4;
const FIRST_PAUSE_MS = 50;

/** Files in a store of objects that speaks the protocol of S3, each under the SHA-256 of its content. */
export class ObjectStore {
  private readonly client: S3Client;
  private readonly bucket: string;
  private readonly prefix: string;

  /** Who one is there is said by the client's own settings (`AWS_ACCESS_KEY_ID` …). */
  constructor({
    files,
    s3Endpoint,
    s3Region,
  }: Pick<Settings, 's3Endpoint' | 's3Region'> & { files: string }) {
    const { host, pathname } = new URL(files);
    this.bucket = host;
    this.prefix = pathname.replace(/^\/|\/$/g, '');
    this.client = new S3Client({
      region: s3Region,
      maxAttempts: TRIES,
      requestHandler: { requestTimeout: PATIENCE_MS, connectionTimeout: PATIENCE_MS },
      // Other stores than the first know nothing of the newer checksums; ours are compared by their SHA-256 anyway.
      requestChecksumCalculation: 'WHEN_REQUIRED',
      responseChecksumValidation: 'WHEN_REQUIRED',
      ...(s3Endpoint !== undefined && { endpoint: s3Endpoint, forcePathStyle: true }),
    });
  }

  close(): void {
    this.client.destroy();
  }

  /** Throws StartError where the store cannot be reached, or does not let this server in. */
  async check(): Promise<void> {
    try {
      await this.client.send(new HeadBucketCommand({ Bucket: this.bucket }));
    } catch (error) {
      throw new StartError(
        `The store in DOODLA_FILES cannot be used (${(error as Error).name}). Nothing was changed. Look at the bucket, DOODLA_S3_ENDPOINT and AWS_ACCESS_KEY_ID.`,
      );
    }
  }

  /** Puts a file there, again where it is there already. */
  async put(sha256: string, path: string): Promise<void> {
    const { size } = await stat(path);
    // The client does not try again by itself what it reads from a stream.
    for (let tries = 1; ; tries++) {
      const put = { ...this.at(sha256), Body: createReadStream(path), ContentLength: size };
      try {
        await this.client.send(new PutObjectCommand(put));
        return;
      } catch (error) {
        if (tries === TRIES || !mayPass(error)) throw error;
        await sleep(FIRST_PAUSE_MS * 2 ** tries);
      }
    }
  }

  /** Gets a file. Returns false where it is not there. */
  async get(sha256: string, path: string): Promise<boolean> {
    const found = await orNone(this.client.send(new GetObjectCommand(this.at(sha256))));
    if (!found) return false;
    try {
      await pipeline(found.Body as Readable, createWriteStream(path));
      return true;
    } catch (error) {
      await rm(path, { force: true });
      throw error;
    }
  }

  /** What is there; undefined where nothing is. */
  async look(sha256: string): Promise<StoredObject | undefined> {
    const found = await orNone(this.client.send(new HeadObjectCommand(this.at(sha256))));
    return found && { bytes: found.ContentLength ?? 0, changedAt: found.LastModified?.getTime() ?? 0 };
  }

  async remove(sha256: string): Promise<void> {
    await this.client.send(new DeleteObjectCommand(this.at(sha256)));
  }

  private at(sha256: string) {
    const folders = [this.prefix, 'files', sha256.slice(0, 2), sha256].filter((each) => each !== '');
    return { Bucket: this.bucket, Key: folders.join('/') };
  }
}

/** Whether something may go well the next time: the store was busy, or could not be reached. */
function mayPass(error: unknown): boolean {
  const status = (error as { $metadata?: { httpStatusCode?: number } }).$metadata?.httpStatusCode;
  return status === undefined || status >= 500;
}

async function orNone<Answer>(asked: Promise<Answer>): Promise<Answer | undefined> {
  try {
    return await asked;
  } catch (error) {
    if (['NoSuchKey', 'NotFound'].includes((error as Error).name)) return undefined;
    throw error;
  }
}
