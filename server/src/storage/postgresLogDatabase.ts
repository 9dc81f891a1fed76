import type { OnApplicationShutdown } from '@nestjs/common';
import { Logger } from '@nestjs/common';
import { Pool } from 'pg';
import { logFailure } from '../http/failures.js';
import { withNumbers } from './dialect.js';
import type { Dialect, Statement } from './logDatabase.js';
import { FencedError, LogDatabase, TakenError } from './logDatabase.js';

/** Connections for the logs, beside those for all else. */
const CONNECTIONS = 16;
/** Longest that a statement may take, milliseconds. */
const LONGEST_MS = 30_000;
/** PostgreSQL documentation, Appendix A. */
const UNIQUE_VIOLATION = '23505';
const NOT_NULL_VIOLATION = '23502';
const DIVISION_BY_ZERO = '22012';
/** Each connection keeps these in memory of its own. */
const MOST_PREPARED = 100;
/** So many statements are sent as one. */
const MOST_AS_ONE = 8;

/** The logs in PostgreSQL, on connections of their own. */
export class PostgresLogDatabase extends LogDatabase implements OnApplicationShutdown {
  readonly dialect: Dialect = { instr: 'strpos', by: () => '' };
  private readonly pool: Pool;
  /** Names of statements that connections may keep prepared, by their texts. */
  private readonly names = new Map<string, { name: string; text: string }>();

  constructor(url: string) {
    super();
    this.pool = new Pool({ connectionString: url, max: CONNECTIONS, statement_timeout: LONGEST_MS });
    const logger = new Logger('Logs');
    // One that was idle; the next statement takes another.
    this.pool.on('error', (error) => logFailure(logger, 'A connection to the database was lost', error));
  }

  onApplicationShutdown(): Promise<void> {
    return this.pool.end();
  }

  async isWritable(): Promise<boolean> {
    try {
      const { rows } = await this.pool.query<{ off: boolean }>(
        `SELECT pg_is_in_recovery() OR current_setting('transaction_read_only') = 'on' AS off`,
      );
      return rows[0]?.off === false;
    } catch {
      // Whatever the reason: whoever watches is told that nothing can be written.
      return false;
    }
  }

  async all<Row>(text: string, ...values: unknown[]): Promise<Row[]> {
    const { rows } = await this.pool.query({ ...this.named(text), values });
    return rows as Row[];
  }

  async write(statements: readonly Statement[], first?: Statement): Promise<void> {
    try {
      if (statements.length > MOST_AS_ONE || !(await this.asOne(statements, first)))
        await this.inTurn(statements, first);
    } catch (error) {
      const code = codeOf(error);
      if (code === DIVISION_BY_ZERO) throw new FencedError(first?.[0], { cause: error });
      if (code !== UNIQUE_VIOLATION) throw error;
      throw new TakenError((error as Error).message, { cause: error });
    }
  }

  /**
   * Sends statements as parts of one (`WITH`, documentation 7.8.4), which spares the ways between. None of them sees what
   * another has done, so one that needs a row of another cannot be done so. Returns whether it could.
   */
  private async asOne(statements: readonly Statement[], first: Statement | undefined): Promise<boolean> {
    const all = first ? [[`${first[0]} RETURNING 1`, first[1]] as const, ...statements] : statements;
    if (all.length === 0) return true;
    const parts = all.map(([text], i) => `s${i} AS (${text})`);
    // Without the row of the first all of it fails.
    const last = first ? '1 / count(*) FROM s0' : '1';
    try {
      await this.all(`WITH ${parts.join(', ')} SELECT ${last}`, ...all.flatMap(([, values]) => values));
      return true;
    } catch (error) {
      if (codeOf(error) === NOT_NULL_VIOLATION) return false;
      throw error;
    }
  }

  private async inTurn(statements: readonly Statement[], first: Statement | undefined): Promise<void> {
    const client = await this.pool.connect();
    let broken = false;
    try {
      await client.query('BEGIN');
      if (first) {
        const { rowCount } = await client.query({ ...this.named(first[0]), values: [...first[1]] });
        if (rowCount === 0) throw new FencedError(first[0]);
      }
      for (const [text, values] of statements)
        await client.query({ ...this.named(text), values: [...values] });
      await client.query('COMMIT');
    } catch (error) {
      broken = await client.query('ROLLBACK').then(
        () => false,
        () => true,
      );
      throw error;
    } finally {
      client.release(broken);
    }
  }

  /** A statement as it is sent; connections keep so many prepared, whatever shapes come later. */
  private named(text: string): { name?: string; text: string } {
    let named = this.names.get(text);
    if (!named) {
      if (this.names.size >= MOST_PREPARED) return { text: withNumbers(text) };
      named = { name: `log-${this.names.size}`, text: withNumbers(text) };
      this.names.set(text, named);
    }
    return named;
  }
}

const codeOf = (error: unknown): string | undefined => (error as { code?: string }).code;
