import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Colleagues who work on a lesson together with whose it is. */
export class Teams1700000000019 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE lesson_team (
      lesson_id TEXT NOT NULL REFERENCES lesson(id) ON DELETE CASCADE,
      teacher_id TEXT NOT NULL REFERENCES teacher(id) ON DELETE CASCADE,
      PRIMARY KEY (lesson_id, teacher_id)
    ) STRICT, WITHOUT ROWID`);
    await runner.query('CREATE INDEX lesson_team_by_teacher ON lesson_team (teacher_id)');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE lesson_team');
  }
}
