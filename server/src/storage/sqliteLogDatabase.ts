import type { OnApplicationShutdown } from '@nestjs/common';
import Database from 'better-sqlite3';
import { GroupCommit, isBusy } from './groupCommit.js';
import type { Dialect, Statement } from './logDatabase.js';
import { FencedError, LogDatabase, TakenError } from './logDatabase.js';

/**
 * The logs in the SQLite file: plain statements on a connection of their own, so that no other transaction can
 * take an acknowledged operation back with it.
 */
export class SqliteLogDatabase extends LogDatabase implements OnApplicationShutdown {
  readonly dialect: Dialect = { instr: 'instr', by: (index) => `INDEXED BY ${index}` };
  private readonly database: Database.Database;
  private readonly commits: GroupCommit;
  private readonly statements = new Map<string, Database.Statement>();

  constructor(path: string) {
    super();
    this.database = new Database(path);
    for (const pragma of [
      'journal_mode = WAL',
      'foreign_keys = ON',
      'synchronous = FULL',
      'secure_delete = ON',
      'busy_timeout = 0',
    ])
      this.database.pragma(pragma);
    this.commits = new GroupCommit(this.database);
  }

  onApplicationShutdown(): void {
    this.database.close();
  }

  isWritable(): Promise<boolean> {
    try {
      this.database.exec('BEGIN IMMEDIATE');
      this.database.exec('ROLLBACK');
      return Promise.resolve(true);
    } catch (error) {
      // Somebody else is writing, so it can be written to.
      return Promise.resolve(isBusy(error));
    }
  }

  // Asynchronous, so that what the database throws is a rejection.
  // eslint-disable-next-line @typescript-eslint/require-await
  async all<Row>(text: string, ...values: unknown[]): Promise<Row[]> {
    return this.on(text).all(...values) as Row[];
  }

  async write(statements: readonly Statement[], first?: Statement): Promise<void> {
    try {
      await this.commits.run(() => {
        if (first && this.on(first[0]).run(...first[1]).changes === 0) throw new FencedError(first[0]);
        for (const [text, values] of statements) this.on(text).run(...values);
      });
    } catch (error) {
      if (isTaken(error)) throw new TakenError((error as Error).message, { cause: error });
      throw error;
    }
  }

  private on(text: string): Database.Statement {
    let statement = this.statements.get(text);
    if (!statement) {
      statement = this.database.prepare(text);
      this.statements.set(text, statement);
    }
    return statement;
  }
}

function isTaken(error: unknown): boolean {
  return (error as { code?: string }).code?.startsWith('SQLITE_CONSTRAINT') === true;
}
