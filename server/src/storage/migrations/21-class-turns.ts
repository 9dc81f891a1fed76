import type { MigrationInterface, QueryRunner } from 'typeorm';

/** When classes came to which page, for playing them again. */
export class ClassTurns1700000000021 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE class_turn (
      id INTEGER PRIMARY KEY,
      sitting_id TEXT NOT NULL REFERENCES sitting (id) ON DELETE CASCADE,
      at INTEGER NOT NULL,
      page_id TEXT NOT NULL,
      name TEXT
    )`);
    await runner.query('CREATE INDEX class_turn_by_sitting ON class_turn (sitting_id, id)');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE class_turn');
  }
}
