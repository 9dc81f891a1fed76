import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Where playing a lesson or class again waits. */
export class ReplayStops1700000000022 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE replay_stop (
      id TEXT PRIMARY KEY,
      lesson_id TEXT REFERENCES lesson (id) ON DELETE CASCADE,
      sitting_id TEXT REFERENCES sitting (id) ON DELETE CASCADE,
      at INTEGER NOT NULL,
      page_id TEXT NOT NULL,
      text TEXT NOT NULL,
      seconds INTEGER
    )`);
    await runner.query('CREATE INDEX replay_stop_by_lesson ON replay_stop (lesson_id)');
    await runner.query('CREATE INDEX replay_stop_by_sitting ON replay_stop (sitting_id)');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE replay_stop');
  }
}
