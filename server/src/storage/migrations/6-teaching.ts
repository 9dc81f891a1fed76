import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What is set up for a class, classes that were dropped, and displays and pads. */
export class Teaching1700000000006 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE sitting ADD COLUMN scene TEXT');
    await runner.query('ALTER TABLE sitting ADD COLUMN dropped_at INTEGER');
    await runner.query(`CREATE TABLE device (
      id TEXT PRIMARY KEY,
      sitting_id TEXT NOT NULL REFERENCES sitting(id) ON DELETE CASCADE,
      kind TEXT NOT NULL CHECK (kind IN ('display', 'pad')),
      code TEXT NOT NULL,
      created_at INTEGER NOT NULL,
      entered_at INTEGER,
      removed_at INTEGER
    ) STRICT`);
    await runner.query('CREATE INDEX device_code ON device(code)');
    await runner.query('CREATE INDEX device_sitting ON device(sitting_id)');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE device');
    await runner.query('ALTER TABLE sitting DROP COLUMN dropped_at');
    await runner.query('ALTER TABLE sitting DROP COLUMN scene');
  }
}
