import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Who looks after the school, and invitations to it. */
export class School1700000000016 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE teacher ADD COLUMN admin INTEGER NOT NULL DEFAULT 0');
    await runner.query(
      'UPDATE teacher SET admin = 1 WHERE id = (SELECT id FROM teacher ORDER BY created_at LIMIT 1)',
    );
    await runner.query(`CREATE TABLE invitation (
      token_hash TEXT PRIMARY KEY,
      teacher_id TEXT REFERENCES teacher(id) ON DELETE CASCADE,
      name TEXT NOT NULL,
      email TEXT NOT NULL,
      expires_at INTEGER NOT NULL
    ) STRICT, WITHOUT ROWID`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE invitation');
    await runner.query('ALTER TABLE teacher DROP COLUMN admin');
  }
}
