import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';

/** A statement that writes: one of a query builder, or its text and parameters. */
export type Write =
  { getQueryAndParameters(): [string, unknown[]] } | readonly [text: string, parameters: readonly unknown[]];

/** The part of better-sqlite3 that is used here. */
interface Connection {
  prepare(text: string): { run(...parameters: unknown[]): unknown };
  transaction(work: () => void): () => void;
}

/**
 * Writes that belong together: all of them are in the database, or none. They run in one go, since all requests share
 * one connection: whatever came in between would be taken back with a transaction of which a later part fails.
 */
@Injectable()
export class Writes {
  constructor(private readonly source: DataSource) {}

  /** Throws where one of them cannot be done; then none is. */
  together(...writes: readonly Write[]): void {
    const connection = (this.source.driver as unknown as { databaseConnection: Connection })
      .databaseConnection;
    connection.transaction(() => {
      for (const write of writes) {
        const [text, parameters] = 'getQueryAndParameters' in write ? write.getQueryAndParameters() : write;
        connection.prepare(text).run(...parameters);
      }
    })();
  }
}
