import type { MigrationInterface, QueryRunner } from 'typeorm';
import { isPostgres } from '../storage/dialect.js';

/** By which a log knows who stores something in it. */
export const FENCE = 'ALTER TABLE log ADD COLUMN fence INTEGER NOT NULL DEFAULT 0';

/** Processes that share a database, and what each has in hand. With SQLite there is one, and nothing in these tables. */
export class Processes1700000000028 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    const isLarge = isPostgres(runner.dataSource);
    const [number, strict] = isLarge ? ['BIGINT', ''] : ['INTEGER', ' STRICT'];
    await runner.query(FENCE.replace('INTEGER', number));
    await runner.query(`CREATE TABLE process (
      id TEXT PRIMARY KEY,
      address TEXT NOT NULL,
      secret TEXT NOT NULL,
      step INTEGER NOT NULL,
      renewed_at ${number} NOT NULL
    )${strict}`);
    await runner.query(`CREATE TABLE lease (
      lesson TEXT PRIMARY KEY,
      holder TEXT,
      fence ${number} NOT NULL
    )${strict}`);
    await runner.query('CREATE INDEX lease_by_holder ON lease (holder)');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE lease');
    await runner.query('DROP TABLE process');
    await runner.query('ALTER TABLE log DROP COLUMN fence');
  }
}
