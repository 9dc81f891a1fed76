import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Ideas with their votes, and what a class says and notes down. */
export class IdeasAndWords1700000000012 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE sitting ADD COLUMN ideas TEXT');
    await runner.query(`CREATE TABLE idea_vote (
      sitting_id TEXT NOT NULL REFERENCES sitting(id) ON DELETE CASCADE,
      mark_id TEXT NOT NULL,
      student_id TEXT NOT NULL,
      page_id TEXT NOT NULL,
      PRIMARY KEY (sitting_id, mark_id, student_id)
    ) STRICT, WITHOUT ROWID`);
    await runner.query(`CREATE TABLE chat_message (
      id TEXT PRIMARY KEY,
      sitting_id TEXT NOT NULL REFERENCES sitting(id) ON DELETE CASCADE,
      author TEXT NOT NULL,
      name TEXT,
      words TEXT NOT NULL,
      at INTEGER NOT NULL,
      removed_at INTEGER
    ) STRICT`);
    await runner.query('CREATE INDEX chat_message_by_sitting ON chat_message (sitting_id, at)');
    await runner.query(`CREATE TABLE class_notes (
      sitting_id TEXT PRIMARY KEY REFERENCES sitting(id) ON DELETE CASCADE,
      body TEXT NOT NULL,
      version INTEGER NOT NULL,
      changed_at INTEGER NOT NULL
    ) STRICT`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['class_notes', 'chat_message', 'idea_vote'])
      await runner.query(`DROP TABLE ${table}`);
    await runner.query('ALTER TABLE sitting DROP COLUMN ideas');
  }
}
