import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Links that show pages to whoever has them. */
export class Links1700000000015 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE shared_link (
      id TEXT PRIMARY KEY,
      lesson_id TEXT NOT NULL REFERENCES lesson(id) ON DELETE CASCADE,
      sitting_id TEXT REFERENCES sitting(id) ON DELETE CASCADE,
      title TEXT NOT NULL,
      token TEXT NOT NULL UNIQUE,
      password_hash TEXT,
      ends_at INTEGER,
      may_download INTEGER NOT NULL,
      sha256 TEXT,
      created_at INTEGER NOT NULL
    ) STRICT`);
    await runner.query('CREATE INDEX shared_link_by_lesson ON shared_link (lesson_id)');
    await runner.query('CREATE INDEX shared_link_by_sitting ON shared_link (sitting_id)');
    const note = `WHEN OLD.sha256 IS NOT NULL BEGIN
      INSERT OR REPLACE INTO gone_file VALUES (OLD.sha256, unixepoch() * 1000); END`;
    await runner.query(`CREATE TRIGGER shared_link_gone AFTER DELETE ON shared_link ${note}`);
    await runner.query(`CREATE TRIGGER shared_link_changed AFTER UPDATE OF sha256 ON shared_link ${note}`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE shared_link');
  }
}
