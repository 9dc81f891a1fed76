import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What a class was asked, and what it answered. */
export class Polls1700000000011 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE poll (
      id TEXT PRIMARY KEY,
      sitting_id TEXT NOT NULL REFERENCES sitting(id) ON DELETE CASCADE,
      body TEXT NOT NULL,
      asked_at INTEGER NOT NULL,
      closed_at INTEGER,
      put_away_at INTEGER
    ) STRICT`);
    await runner.query('CREATE INDEX poll_by_sitting ON poll (sitting_id, asked_at)');
    await runner.query(`CREATE TABLE poll_answer (
      poll_id TEXT NOT NULL REFERENCES poll(id) ON DELETE CASCADE,
      student_id TEXT NOT NULL,
      value TEXT NOT NULL,
      at INTEGER NOT NULL,
      PRIMARY KEY (poll_id, student_id)
    ) STRICT, WITHOUT ROWID`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE poll_answer');
    await runner.query('DROP TABLE poll');
  }
}
