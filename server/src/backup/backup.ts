import Database from 'better-sqlite3';
import { createHash } from 'node:crypto';
import { createReadStream, existsSync, rmSync } from 'node:fs';
import { copyFile, cp, mkdir, readdir, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { DataFolder } from '../storage/dataFolder.js';
import { DATABASE_FILE } from '../storage/dataSource.js';

/** Thrown where there is nothing to back up or to restore; the message says why and what to do. */
export class BackupError extends Error {
  override name = 'BackupError';
}

/** What a backup says of itself, in `backup.json`. */
interface Manifest {
  /** When it was made, ISO 8601. */
  made: string;
  files: number;
}

export interface Backup extends Manifest {
  path: string;
  /** Files that the database names and the data folder has not, or not as they were stored. */
  missing: string[];
}

export interface Restored {
  files: number;
  /** Where what was in the data folder is now; undefined where there was nothing. */
  before: string | undefined;
}

/** Told now and then: how many files are done, of how many. */
type Tell = (done: number, total: number) => void;

const MANIFEST = 'backup.json';
/** What a data folder has for as long as its server runs, and what is copied in its own way. */
const LEFT_OUT = /^(doodla\.sqlite.*|lock\.sqlite.*|incoming|files)$/;
/** More than any database has: it is copied in one step, which no writer can make begin again. */
const ALL_PAGES = 0x7fffffff;
const UNFINISHED = '.unfinished';

const NAMED_FILES = `SELECT sha256 FROM material UNION SELECT sha256 FROM picture UNION SELECT sha256 FROM shelf_picture
  UNION SELECT sha256 FROM shelf_thing_picture UNION SELECT preview_sha256 FROM shelf_thing WHERE preview_sha256 IS NOT NULL
  UNION SELECT sha256 FROM shared_link WHERE sha256 IS NOT NULL
  UNION SELECT cover_sha256 FROM lesson WHERE cover_sha256 IS NOT NULL
  UNION SELECT cover_sha256 FROM sitting WHERE cover_sha256 IS NOT NULL
  UNION SELECT sha256 FROM explanation_piece`;

/**
 * Copies a data folder into a new folder within `target`, also while its server runs: first the database as it is at one
 * moment (SQLite online backup API), then all files that it names, which stay for a day after nothing names them. What is
 * not finished has another name. Throws BackupError.
 */
export async function backUp(data: string, target: string, tell: Tell = () => undefined): Promise<Backup> {
  if (!existsSync(join(data, DATABASE_FILE)))
    throw new BackupError(`There is no database in ${data}. Set DOODLA_DATA to the data folder.`);
  const made = new Date().toISOString();
  const path = join(target, `doodla-${made.slice(0, 19).replace(/[:T]/g, '-')}`);
  const manifest = await finished(path, async (part) => {
    await copyDatabase(join(data, DATABASE_FILE), join(part, DATABASE_FILE));
    for (const entry of await readdir(data))
      if (!LEFT_OUT.test(entry)) await cp(join(data, entry), join(part, entry), { recursive: true });
    const named = checkedNames(join(part, DATABASE_FILE));
    const missing = await copyFiles(named, data, part, tell);
    const what: Manifest = { made, files: named.length - missing.length };
    await writeFile(join(part, MANIFEST), `${JSON.stringify(what, null, 2)}\n`);
    return { ...what, missing };
  });
  return { ...manifest, path };
}

/**
 * Puts a backup in the place of a data folder whose server does not run. What was there is moved beside it. Throws
 * BackupError, and changes nothing then.
 */
export async function restore(backup: string, data: string, tell: Tell = () => undefined): Promise<Restored> {
  checkStopped(data);
  const { files } = await manifestOf(backup);
  let before: string | undefined;
  await finished(data, async (part) => {
    for (const entry of await readdir(backup))
      if (entry !== MANIFEST && entry !== 'files')
        await cp(join(backup, entry), join(part, entry), { recursive: true });
    const named = checkedNames(join(part, DATABASE_FILE));
    const lost = files - named.length + (await copyFiles(named, backup, part, tell)).length;
    if (lost > 0)
      throw new BackupError(
        `The backup ${backup} is not whole: ${lost} of its files are missing or damaged. Nothing was changed. Take an older backup.`,
      );
    before = await moveAside(data);
  });
  return { files, before };
}

/** Makes a folder under another name, which it loses when all is in it; what fails leaves nothing behind. */
async function finished<T>(path: string, fill: (part: string) => Promise<T>): Promise<T> {
  const part = path + UNFINISHED;
  await rm(part, { recursive: true, force: true });
  await mkdir(part, { recursive: true });
  try {
    const result = await fill(part);
    await rename(part, path);
    return result;
  } catch (error) {
    await rm(part, { recursive: true, force: true });
    throw error;
  }
}

async function manifestOf(backup: string): Promise<Manifest> {
  try {
    if (backup.endsWith(UNFINISHED)) throw new Error('it was never finished');
    return JSON.parse(await readFile(join(backup, MANIFEST), 'utf8')) as Manifest;
  } catch (error) {
    throw new BackupError(
      `${backup} is no finished backup (${(error as Error).message}). Give the folder that “npm run backup” has named.`,
    );
  }
}

async function copyDatabase(from: string, to: string): Promise<void> {
  const database = new Database(from, { fileMustExist: true });
  try {
    await database.backup(to, { progress: () => ALL_PAGES });
  } finally {
    database.close();
  }
}

/** The files that a database names. Throws BackupError where it is damaged. */
function checkedNames(path: string): string[] {
  const database = new Database(path, { fileMustExist: true });
  try {
    const found = database.pragma('integrity_check', { simple: true });
    if (found !== 'ok') throw new Error(String(found));
    return database.prepare(NAMED_FILES).pluck().all() as string[];
  } catch (error) {
    throw new BackupError(
      `The database ${path} is damaged (${(error as Error).message}). Nothing was changed. Take an older backup.`,
    );
  } finally {
    database.close();
    // One file again, without the log that reading has begun.
    for (const rest of ['-wal', '-shm']) rmSync(path + rest, { force: true });
  }
}

/** Copies stored files. Returns those that are not there, or are not what they were. */
async function copyFiles(names: readonly string[], from: string, to: string, tell: Tell): Promise<string[]> {
  const missing: string[] = [];
  for (const [i, sha256] of names.entries()) {
    const place = join('files', sha256.slice(0, 2), sha256);
    await mkdir(dirname(join(to, place)), { recursive: true });
    const isThere = await copyFile(join(from, place), join(to, place)).then(
      () => true,
      (error: NodeJS.ErrnoException) => {
        if (error.code !== 'ENOENT') throw error;
        return false;
      },
    );
    if (!isThere || (await hashOf(join(to, place))) !== sha256) missing.push(sha256);
    tell(i + 1, names.length);
  }
  return missing;
}

async function hashOf(path: string): Promise<string> {
  const hash = createHash('sha256');
  await pipeline(createReadStream(path), hash);
  return hash.digest('hex');
}

async function moveAside(data: string): Promise<string | undefined> {
  if (!existsSync(data)) return undefined;
  checkStopped(data);
  const { mtime } = await stat(data);
  const before = `${data}-before-${mtime.toISOString().slice(0, 19).replace(/[:T]/g, '-')}`;
  if (existsSync(before))
    throw new BackupError(`${basename(before)} is there already. Move it away; nothing was changed.`);
  await rename(data, before);
  return before;
}

function checkStopped(data: string): void {
  if (DataFolder.isInUse(data))
    throw new BackupError(`Doodla runs on ${data}. Stop it first; nothing was changed.`);
}
