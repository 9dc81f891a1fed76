import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Video of what moved under the marks, and of whoever explained. */
export class ExplanationVideos1700000000025 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE explanation_take ADD COLUMN video TEXT');
    await runner.query('ALTER TABLE explanation_take ADD COLUMN face TEXT');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE explanation_take DROP COLUMN face');
    await runner.query('ALTER TABLE explanation_take DROP COLUMN video');
  }
}
