import type { MigrationInterface, QueryRunner } from 'typeorm';

export class Shelf1700000000003 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE shelf_picture (
      id TEXT PRIMARY KEY,
      teacher_id TEXT NOT NULL REFERENCES teacher(id) ON DELETE CASCADE,
      type TEXT NOT NULL CHECK (type IN ('png', 'jpeg')),
      sha256 TEXT NOT NULL,
      created_at INTEGER NOT NULL
    ) STRICT`);
    await runner.query('CREATE INDEX shelf_picture_by_teacher ON shelf_picture (teacher_id)');
    await runner.query(`CREATE TABLE preference (
      teacher_id TEXT NOT NULL REFERENCES teacher(id) ON DELETE CASCADE,
      name TEXT NOT NULL,
      value TEXT NOT NULL,
      PRIMARY KEY (teacher_id, name)
    ) STRICT`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE preference');
    await runner.query('DROP TABLE shelf_picture');
  }
}
