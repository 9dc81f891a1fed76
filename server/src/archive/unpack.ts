import { MAX_MARKS } from '@doodla/core';
import type { ArchiveHead } from '@doodla/core/archive';
import { checkHead, checkPage, HEAD_FILE, UnreadableArchive } from '@doodla/core/archive';
import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream } from 'node:fs';
import { mkdir, readFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { promisify } from 'node:util';
import type { Entry, Options, ZipFile } from 'yauzl';
import { open } from 'yauzl';
import type { ArchiveNote } from './archiveTask.js';

const openZip = promisify<string, Options, ZipFile>(open);

/** Thrown where an archive unfolds to more than it may. */
export class TooLarge extends Error {
  override name = 'TooLarge';
}

/** Plain names, none of which leads out of the folder. */
const NAME = /^[\w-]+(\/[\w-]+)*\.[a-z0-9]+$/;
/** More than a lesson has. */
const MOST_ENTRIES = 60_000;

interface Unpacking {
  path: string;
  folder: string;
  maxBytes: number;
}

/**
 * Unpacks an archive into a folder and looks at all of it: its head, every page, and whether each file is the one that it
 * says. Throws UnreadableArchive or TooLarge.
 */
export async function unpack(
  { path, folder, maxBytes }: Unpacking,
  tell: (note: ArchiveNote) => Promise<unknown>,
): Promise<ArchiveHead> {
  await unfold(path, folder, maxBytes);
  const head = checkHead(await readJson(join(folder, HEAD_FILE), 'none'));
  const logs = [head.pages, ...head.classes.map(({ pages }) => pages)];
  const total = logs.flat().length;
  let done = 0;
  for (const pages of logs) {
    let marks = 0;
    for (const page of pages) {
      marks += checkPage(await readJson(join(folder, page), 'broken')).marks.length;
      if (marks > MAX_MARKS) throw new TooLarge();
      done += 1;
      await tell({ done, total });
    }
  }
  for (const file of head.files)
    if ((await hashOf(join(folder, file.path))) !== file.sha256) throw new UnreadableArchive('broken');
  return head;
}

async function unfold(path: string, folder: string, maxBytes: number): Promise<void> {
  const zip = await openZip(path, { lazyEntries: true, autoClose: false }).catch(() => {
    throw new UnreadableArchive('none');
  });
  let entries = 0;
  let bytes = 0;
  try {
    for (let entry = await next(zip); entry; entry = await next(zip)) {
      entries += 1;
      if (entries > MOST_ENTRIES) throw new TooLarge();
      if (!NAME.test(entry.fileName)) continue;
      bytes += await extract(zip, entry, join(folder, entry.fileName), maxBytes - bytes);
    }
  } catch (error) {
    if (error instanceof TooLarge) throw error;
    throw new UnreadableArchive('broken');
  } finally {
    zip.close();
  }
}

/** The next entry; undefined after the last. */
function next(zip: ZipFile): Promise<Entry | undefined> {
  return new Promise((resolve, reject) => {
    const settle = (done: () => void) => () => {
      zip.removeAllListeners();
      done();
    };
    zip.once('entry', (entry: Entry) => settle(() => resolve(entry))());
    zip.once(
      'end',
      settle(() => resolve(undefined)),
    );
    zip.once('error', (error: Error) => settle(() => reject(error))());
    zip.readEntry();
  });
}

/** Writes an entry, however large it says it is, up to `most` bytes; returns how many there were. */
async function extract(zip: ZipFile, entry: Entry, to: string, most: number): Promise<number> {
  let bytes = 0;
  const counted = new Transform({
    transform(piece: Buffer, _, next) {
      bytes += piece.length;
      next(bytes > most ? new TooLarge() : null, piece);
    },
  });
  await mkdir(dirname(to), { recursive: true });
  const read = await promisify<Entry, NodeJS.ReadableStream>(zip.openReadStream.bind(zip))(entry);
  await pipeline(read, counted, createWriteStream(to));
  return bytes;
}

async function readJson(path: string, fault: 'none' | 'broken'): Promise<unknown> {
  try {
    return JSON.parse(await readFile(path, 'utf8'));
  } catch {
    throw new UnreadableArchive(fault);
  }
}

async function hashOf(path: string): Promise<string | undefined> {
  const hash = createHash('sha256');
  try {
    await pipeline(createReadStream(path), hash);
    return hash.digest('hex');
  } catch {
    // It is named but not there.
    return undefined;
  }
}
