import type { MigrationInterface } from 'typeorm';

/** What a subject keeps in the database. */
export interface Tables {
  entities: (new () => object)[];
  /** Changes of its tables; those from before subjects had their own are in `storage/migrations`. */
  migrations: (new () => MigrationInterface)[];
}
