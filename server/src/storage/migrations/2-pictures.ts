import type { MigrationInterface, QueryRunner } from 'typeorm';

export class Pictures1700000000002 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE picture (
      id TEXT PRIMARY KEY,
      lesson_id TEXT NOT NULL REFERENCES lesson(id) ON DELETE CASCADE,
      author TEXT NOT NULL,
      type TEXT NOT NULL CHECK (type IN ('png', 'jpeg')),
      sha256 TEXT NOT NULL,
      created_at INTEGER NOT NULL
    ) STRICT`);
    await runner.query('CREATE INDEX picture_by_lesson ON picture (lesson_id)');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE picture');
  }
}
