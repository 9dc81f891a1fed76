import { Logger } from '@nestjs/common';
import { Client } from 'pg';
import { logFailure } from '../http/failures.js';
import { StartError } from './dataFolder.js';

/** Of the advisory locks that a server has on its database (PostgreSQL documentation, 13.3.5); ours alone, and arbitrary. */
const LOCK = 4_600_111_926;
const STARTING = 4_600_111_927;

/**
 * Keeps a database in PostgreSQL for one server, as the lock in the data folder keeps SQLite's file; or for several processes that
 * know of each other, of which one after the other starts, since each brings the tables up to date.
 */
export class DatabaseHold {
  private constructor(private readonly client: Client) {}

  /** Throws StartError where the database cannot be reached, or a server runs on it that does not share it. */
  static async take(url: string, isShared: boolean): Promise<DatabaseHold> {
    const client = new Client({ connectionString: url, keepAlive: true });
    // The database lets go of the lock with the connection; whoever writes next hears that it is gone.
    client.on('error', (error) => logFailure(new Logger('Database'), 'The database was lost', error));
    try {
      await client.connect();
    } catch (error) {
      throw new StartError(
        `The database in DOODLA_DATABASE cannot be reached (${(error as Error).message}). Nothing was changed. Start it, or look at the address.`,
      );
    }
    const lock = isShared ? 'pg_try_advisory_lock_shared' : 'pg_try_advisory_lock';
    const { rows } = await client.query<{ held: boolean }>(`SELECT ${lock}($1) AS held`, [LOCK]);
    if (rows[0]?.held) {
      await client.query('SELECT pg_advisory_lock($1)', [STARTING]);
      return new DatabaseHold(client);
    }
    await client.end();
    throw new StartError(
      'Doodla runs on the database in DOODLA_DATABASE already. Stop it first, or give another database; several processes share one where all of them have DOODLA_REDIS.',
    );
  }

  /** Lets the next one start. */
  async hasStarted(): Promise<void> {
    await this.client.query('SELECT pg_advisory_unlock($1)', [STARTING]);
  }

  async close(): Promise<void> {
    await this.client.end();
  }
}
