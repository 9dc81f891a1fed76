import Database from 'better-sqlite3';
import { randomUUID } from 'node:crypto';
import {
  accessSync,
  closeSync,
  constants,
  existsSync,
  mkdirSync,
  openSync,
  readdirSync,
  readFileSync,
  readSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import type { Database as MainDatabase } from './database.js';
import { DATABASE_FILE } from './dataSource.js';

/** Thrown where the server must not start; the message says why and what to do. */
export class StartError extends Error {
  override name = 'StartError';
}

const IDENTITY_FILE = 'identity';
const LOCK_FILE = 'lock.sqlite';
/** First bytes of a database (SQLite, "Database File Format" §1.3). */
const DATABASE_HEAD = 'SQLite format 3\0';

/**
 * The folder that holds everything. It belongs to one database, and both say so: files without their
 * database, or with another's, are never started with, since all of them would look like nobody's.
 */
export class DataFolder {
  private lock: Database.Database | undefined;

  constructor(private readonly path: string) {}

  /** Whether a server runs on a folder. */
  static isInUse(path: string): boolean {
    const lock = join(path, LOCK_FILE);
    if (!existsSync(lock)) return false;
    const database = new Database(lock, { timeout: 0 });
    try {
      database.exec('BEGIN EXCLUSIVE');
      return false;
    } catch (error) {
      if (!codeOf(error).startsWith('SQLITE_BUSY')) throw damaged(lock, error);
      return true;
    } finally {
      database.close();
    }
  }

  /** Makes sure that the folder is there, whole, and nobody else's; one without a database may be several processes'. Throws StartError. */
  open(hasDatabase: boolean): void {
    this.checkFolder();
    if (!hasDatabase) return;
    try {
      this.takeLock();
      this.checkDatabase();
    } catch (error) {
      this.close();
      throw error;
    }
  }

  close(): void {
    this.lock?.close();
  }

  private checkFolder(): void {
    try {
      mkdirSync(this.path, { recursive: true });
      accessSync(this.path, constants.R_OK | constants.W_OK | constants.X_OK);
    } catch (error) {
      throw new StartError(
        `The data folder ${this.path} cannot be written to (${codeOf(error)}). Give the account that runs Doodla the right to write there, or set DOODLA_DATA to another folder.`,
      );
    }
  }

  /** The system lets go of it with the process, however that ends. */
  private takeLock(): void {
    try {
      this.lock = new Database(join(this.path, LOCK_FILE), { timeout: 0 });
      this.lock.pragma('journal_mode = MEMORY');
      this.lock.exec('BEGIN EXCLUSIVE');
    } catch (error) {
      if (!codeOf(error).startsWith('SQLITE_BUSY')) throw damaged(join(this.path, LOCK_FILE), error);
      throw new StartError(
        `Doodla runs on the data folder ${this.path} already. Stop it first, or set DOODLA_DATA to another folder.`,
      );
    }
  }

  private checkDatabase(): void {
    const path = join(this.path, DATABASE_FILE);
    const id = existsSync(path) ? identityIn(path) : undefined;
    const folderId = this.identity();
    if (id === undefined && (folderId !== undefined || this.hasFiles()))
      throw new StartError(
        `The data folder ${this.path} has stored files, but not the database that they belong to (${DATABASE_FILE}). Nothing was changed. Put the database back from the backup, or set DOODLA_DATA to an empty folder.`,
      );
    if (id !== undefined && id !== '' && folderId !== undefined && folderId !== id)
      throw strangers(this.path);
  }

  /** Notes once and for all which database this folder belongs to. */
  async settle(database: MainDatabase): Promise<void> {
    const [row] = await database.all<{ id: string }>('SELECT id FROM school');
    const id = row?.id ?? this.identity() ?? randomUUID();
    if (this.identity() !== undefined && this.identity() !== id) throw strangers(this.path);
    if (!row) await database.together(['INSERT INTO school (id) VALUES (?)', [id]]);
    if (this.identity() === undefined) writeFileSync(join(this.path, IDENTITY_FILE), `${id}\n`);
  }

  private identity(): string | undefined {
    const path = join(this.path, IDENTITY_FILE);
    return existsSync(path) ? readFileSync(path, 'utf8').trim() : undefined;
  }

  private hasFiles(): boolean {
    const folder = join(this.path, 'files');
    return existsSync(folder) && readdirSync(folder).length > 0;
  }
}

/** What a database says it is; empty for one of before there were identities, undefined for one without tables. */
function identityIn(path: string): string | undefined {
  try {
    const head = headOf(path);
    if (head === '') return undefined;
    if (head !== DATABASE_HEAD) throw new Error('this is no database');
    const database = new Database(path, { readonly: true });
    try {
      const tables = database.prepare("SELECT name FROM sqlite_master WHERE type = 'table'").pluck().all();
      if (tables.length === 0) return undefined;
      if (!tables.includes('school')) return '';
      return (database.prepare('SELECT id FROM school').pluck().get() as string | undefined) ?? '';
    } finally {
      database.close();
    }
  } catch (error) {
    throw damaged(path, error);
  }
}

function headOf(path: string): string {
  const file = openSync(path, 'r');
  try {
    const bytes = Buffer.alloc(DATABASE_HEAD.length);
    return bytes.toString('latin1', 0, readSync(file, bytes));
  } finally {
    closeSync(file);
  }
}

function strangers(path: string): StartError {
  return new StartError(
    `The database and the files in ${path} belong to different installations. Nothing was changed. Put both back from the same backup.`,
  );
}

function damaged(path: string, error: unknown): StartError {
  return new StartError(
    `The database ${path} is damaged and cannot be read (${codeOf(error)}). Nothing was changed. Put it back from the backup.`,
  );
}

function codeOf(error: unknown): string {
  return (error as { code?: string }).code ?? (error as Error).message;
}
