import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Links that play an explanation. */
export class ExplanationLinks1700000000024 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      'ALTER TABLE shared_link ADD COLUMN explanation_id TEXT REFERENCES explanation (id) ON DELETE CASCADE',
    );
    await runner.query('CREATE INDEX shared_link_by_explanation ON shared_link (explanation_id)');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP INDEX shared_link_by_explanation');
    await runner.query('ALTER TABLE shared_link DROP COLUMN explanation_id');
  }
}
