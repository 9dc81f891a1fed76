import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { isPostgres, numbered } from './dialect.js';

/** A statement that writes: one of a query builder, or its text with `?` and their values. */
export type Write =
  { getQueryAndParameters(): [string, unknown[]] } | readonly [text: string, values: readonly unknown[]];

/** The part of better-sqlite3 that is used here. */
interface SqliteConnection {
  prepare(text: string): { run(...values: unknown[]): unknown };
  transaction(work: () => void): () => void;
}

/** The database apart from its logs: queries for which entities have no words, and writes that belong together. */
@Injectable()
export class Database {
  constructor(private readonly source: DataSource) {}

  /** The rows that a query finds; `values` are those of its `?`, in order. */
  all<Row>(text: string, values: readonly unknown[] = []): Promise<Row[]> {
    return this.source.query<Row[]>(numbered(this.source, text), [...values]);
  }

  /** Writes that belong together: rejects where one of them cannot be done; then none is. */
  async together(...writes: readonly Write[]): Promise<void> {
    if (isPostgres(this.source)) return this.inTransaction(writes);
    this.inOneGo(writes);
  }

  /** A text within a column that holds JSON, by its keys from the outside to the inside. */
  textIn(column: string, ...keys: readonly string[]): string {
    if (isPostgres(this.source)) return `(${column}::json #>> '{${keys.join(',')}}')`;
    return `json_extract(${column}, '$.${keys.join('.')}')`;
  }

  private inTransaction(writes: readonly Write[]): Promise<void> {
    return this.source.transaction(async (manager) => {
      for (const write of writes) {
        const [text, values] = partsOf(write);
        await manager.query(numbered(this.source, text), [...values]);
      }
    });
  }

  /** All requests share one connection to SQLite: what came in between would be taken back with what fails later. */
  private inOneGo(writes: readonly Write[]): void {
    const { databaseConnection } = this.source.driver as unknown as { databaseConnection: SqliteConnection };
    databaseConnection.transaction(() => {
      for (const write of writes) {
        const [text, values] = partsOf(write);
        databaseConnection.prepare(text).run(...values);
      }
    })();
  }
}

function partsOf(write: Write): readonly [text: string, values: readonly unknown[]] {
  return 'getQueryAndParameters' in write ? write.getQueryAndParameters() : write;
}
