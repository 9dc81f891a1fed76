import { Pool } from 'pg';
import { Logger } from '@nestjs/common';
import { logFailure } from '../http/failures.js';

/** A process of the server, as the others know it. */
export interface Peer {
  id: string;
  /** Where the others reach it. */
  address: string;
  /** By which requests are known that another process has passed on to it. */
  secret: string;
}

/** A peer that has something in hand, and for how long nothing was heard of it, milliseconds. */
export interface Holder extends Peer {
  silentMs: number;
}

/** Longest that the database is waited for, milliseconds. */
const PATIENCE_MS = 2000;
/** What the database's clock says: those of the processes may differ. Milliseconds since 1970-01-01 UTC. */
const NOW = '(extract(epoch FROM clock_timestamp()) * 1000)::bigint';
/** Rows of processes that have ended are kept for so long. */
const FORGOTTEN_MS = 24 * 3600 * 1000;
const PEER = 'process.id, process.address, process.secret';

/**
 * Processes and what each has in hand, in PostgreSQL, on connections of their own: whatever else goes on, a process can say that
 * it is there.
 */
export class LeaseTable {
  private readonly pool: Pool;

  /** `goneMs`: of whom nothing was heard for so long has nothing in hand. */
  constructor(
    url: string,
    private readonly goneMs: number,
  ) {
    const limits = { statement_timeout: PATIENCE_MS, query_timeout: PATIENCE_MS };
    this.pool = new Pool({
      connectionString: url,
      max: 4,
      connectionTimeoutMillis: PATIENCE_MS,
      keepAlive: true,
      ...limits,
    });
    const logger = new Logger('Processes');
    // One that was idle; the next statement takes another.
    this.pool.on('error', (error) => logFailure(logger, 'A connection to the database was lost', error));
  }

  close(): Promise<void> {
    return this.pool.end();
  }

  /** Says that a process is there, and of what version's step. */
  async renew({ id, address, secret }: Peer, step: number): Promise<void> {
    await this.pool.query(
      `INSERT INTO process (id, address, secret, step, renewed_at) VALUES ($1, $2, $3, $4, ${NOW})
       ON CONFLICT (id) DO UPDATE SET renewed_at = excluded.renewed_at`,
      [id, address, secret, step],
    );
  }

  /** Forgets a process that ends, and those that ended long ago; what they had in hand is anybody's. */
  async leave(id: string): Promise<void> {
    await this.pool.query(`DELETE FROM process WHERE id = $1 OR renewed_at < ${NOW} - ${FORGOTTEN_MS}`, [id]);
  }

  /** The processes that are there. */
  async present(): Promise<(Peer & { step: number })[]> {
    const { rows } = await this.pool.query<Peer & { step: number }>(
      `SELECT ${PEER}, step FROM process WHERE renewed_at > ${NOW} - $1::bigint`,
      [this.goneMs],
    );
    return rows;
  }

  /**
   * Takes a lesson in hand, for a process that is there, unless another one has it of which something was heard in the last
   * `goneMs`. Returns the fencing number, which rises with every hand; undefined where another one has it.
   */
  async take(lesson: string, process: string, goneMs = this.goneMs): Promise<number | undefined> {
    const { rows } = await this.pool.query<{ fence: number }>(
      `INSERT INTO lease (lesson, holder, fence)
       SELECT $1, id, 1 FROM process WHERE id = $2 AND renewed_at > ${NOW} - $3::bigint
       ON CONFLICT (lesson) DO UPDATE SET holder = excluded.holder, fence = lease.fence + 1
       WHERE lease.holder IS NULL OR lease.holder = excluded.holder OR NOT EXISTS (
         SELECT 1 FROM process WHERE id = lease.holder AND renewed_at > ${NOW} - $4::bigint)
       RETURNING fence`,
      [lesson, process, this.goneMs, goneMs],
    );
    return rows[0]?.fence;
  }

  /** Who has a lesson in hand, of those that are there. */
  async holderOf(lesson: string): Promise<Holder | undefined> {
    const { rows } = await this.pool.query<Holder>(
      `SELECT ${PEER}, ${NOW} - renewed_at AS "silentMs" FROM lease JOIN process ON process.id = lease.holder
       WHERE lesson = $1 AND renewed_at > ${NOW} - $2::bigint`,
      [lesson, this.goneMs],
    );
    return rows[0];
  }

  /** What a process has in hand: fencing numbers by lesson. */
  async heldBy(process: string): Promise<Map<string, number>> {
    const { rows } = await this.pool.query<{ lesson: string; fence: number }>(
      'SELECT lesson, fence FROM lease WHERE holder = $1',
      [process],
    );
    return new Map(rows.map(({ lesson, fence }) => [lesson, fence]));
  }

  /** Gives a lesson out of hand, to another process or to whoever asks first. */
  async release(lesson: string, process: string, to: string | null): Promise<void> {
    await this.pool.query('UPDATE lease SET holder = $3 WHERE lesson = $1 AND holder = $2', [
      lesson,
      process,
      to,
    ]);
  }

  /** Whether there is such a lesson, or one was in hand before it was there. */
  async isKnown(lesson: string): Promise<boolean> {
    const { rows } = await this.pool.query<{ known: boolean }>(
      `SELECT EXISTS (SELECT 1 FROM lesson WHERE id = $1) OR EXISTS (SELECT 1 FROM lease WHERE lesson = $1) AS known`,
      [lesson],
    );
    return rows[0]?.known === true;
  }

  /** The lesson of a class; undefined of what is no class. */
  async lessonOf(sitting: string): Promise<string | undefined> {
    const { rows } = await this.pool.query<{ lesson: string }>(
      'SELECT lesson_id AS lesson FROM sitting WHERE id = $1',
      [sitting],
    );
    return rows[0]?.lesson;
  }
}
