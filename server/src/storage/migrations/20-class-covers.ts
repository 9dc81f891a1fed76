import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What classes look like on the start page. */
export class ClassCovers1700000000020 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE sitting ADD COLUMN cover_sha256 TEXT');
    const note = `WHEN OLD.cover_sha256 IS NOT NULL BEGIN
      INSERT OR REPLACE INTO gone_file VALUES (OLD.cover_sha256, unixepoch() * 1000); END`;
    await runner.query(`CREATE TRIGGER sitting_gone AFTER DELETE ON sitting ${note}`);
    await runner.query(`CREATE TRIGGER sitting_changed AFTER UPDATE OF cover_sha256 ON sitting ${note}`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TRIGGER sitting_changed');
    await runner.query('DROP TRIGGER sitting_gone');
    await runner.query('ALTER TABLE sitting DROP COLUMN cover_sha256');
  }
}
