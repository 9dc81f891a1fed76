import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What whoever looks after the school has set, and who comes in by the school's own sign-in. */
export class SchoolSettings1700000000018 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE school_limit (
      name TEXT PRIMARY KEY,
      value INTEGER NOT NULL
    ) STRICT, WITHOUT ROWID`);
    await runner.query('ALTER TABLE teacher ADD COLUMN subject TEXT');
    await runner.query(
      'CREATE UNIQUE INDEX teacher_by_subject ON teacher (subject) WHERE subject IS NOT NULL',
    );
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP INDEX teacher_by_subject');
    await runner.query('ALTER TABLE teacher DROP COLUMN subject');
    await runner.query('DROP TABLE school_limit');
  }
}
