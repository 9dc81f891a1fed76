import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Recorded explanations of pages. */
export class Explanations1700000000023 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE explanation (
      id TEXT PRIMARY KEY,
      lesson_id TEXT REFERENCES lesson (id) ON DELETE CASCADE,
      sitting_id TEXT REFERENCES sitting (id) ON DELETE CASCADE,
      name TEXT NOT NULL,
      parts TEXT,
      stops TEXT NOT NULL,
      chapters TEXT NOT NULL,
      captions TEXT NOT NULL,
      finished INTEGER NOT NULL,
      created_at INTEGER NOT NULL,
      dropped_at INTEGER
    ) STRICT`);
    await runner.query('CREATE INDEX explanation_by_lesson ON explanation (lesson_id)');
    await runner.query('CREATE INDEX explanation_by_sitting ON explanation (sitting_id)');
    await runner.query(`CREATE TABLE explanation_take (
      id TEXT PRIMARY KEY,
      explanation_id TEXT NOT NULL REFERENCES explanation (id) ON DELETE CASCADE,
      started_at INTEGER NOT NULL,
      length INTEGER NOT NULL,
      voice TEXT
    ) STRICT`);
    await runner.query('CREATE INDEX explanation_take_of ON explanation_take (explanation_id)');
    await runner.query(`CREATE TABLE explanation_piece (
      take_id TEXT NOT NULL REFERENCES explanation_take (id) ON DELETE CASCADE,
      track TEXT NOT NULL,
      number INTEGER NOT NULL,
      sha256 TEXT NOT NULL,
      bytes INTEGER NOT NULL,
      PRIMARY KEY (take_id, track, number)
    ) STRICT`);
    await runner.query('CREATE INDEX explanation_piece_by_file ON explanation_piece (sha256)');
    await runner.query(`CREATE TRIGGER explanation_piece_gone AFTER DELETE ON explanation_piece BEGIN
      INSERT OR REPLACE INTO gone_file VALUES (OLD.sha256, unixepoch() * 1000); END`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['explanation_piece', 'explanation_take', 'explanation'])
      await runner.query(`DROP TABLE ${table}`);
  }
}
