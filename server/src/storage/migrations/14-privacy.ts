import type { MigrationInterface, QueryRunner } from 'typeorm';

/** How long classes are kept, and what was cleared away. */
export class Privacy1700000000014 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE sitting ADD COLUMN keep_until INTEGER');
    await runner.query(`CREATE TABLE cleared (
      at INTEGER PRIMARY KEY,
      classes INTEGER NOT NULL,
      lessons INTEGER NOT NULL,
      files INTEGER NOT NULL,
      bytes INTEGER NOT NULL
    ) STRICT`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE cleared');
    await runner.query('ALTER TABLE sitting DROP COLUMN keep_until');
  }
}
