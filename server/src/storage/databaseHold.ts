import { Logger } from '@nestjs/common';
import { Client } from 'pg';
import { logFailure } from '../http/failures.js';
import { StartError } from './dataFolder.js';

/** Of the advisory lock that a server has on its database (PostgreSQL documentation, 13.3.5); ours alone, and arbitrary. */
const LOCK = 4_600_111_926;

/** Keeps a database in PostgreSQL for one server, as the lock in the data folder keeps SQLite's file. */
export class DatabaseHold {
  private constructor(private readonly client: Client) {}

  /** Throws StartError where the database cannot be reached, or another server runs on it. */
  static async take(url: string): Promise<DatabaseHold> {
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
    const { rows } = await client.query<{ held: boolean }>('SELECT pg_try_advisory_lock($1) AS held', [LOCK]);
    if (rows[0]?.held) return new DatabaseHold(client);
    await client.end();
    throw new StartError(
      'Doodla runs on the database in DOODLA_DATABASE already. Stop it first, or give another database.',
    );
  }

  async close(): Promise<void> {
    await this.client.end();
  }
}
