import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Tables that name stored files, with the column that does. */
const NAMING = [
  ['material', 'sha256'],
  ['picture', 'sha256'],
  ['shelf_picture', 'sha256'],
  ['lesson', 'cover_sha256'],
] as const;

/** What belongs to one class alone, which files have been let go of, and which data folder this is. */
export class Belongings1700000000008 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      'ALTER TABLE picture ADD COLUMN sitting_id TEXT REFERENCES sitting(id) ON DELETE CASCADE',
    );
    await runner.query('ALTER TABLE picture ADD COLUMN bytes INTEGER NOT NULL DEFAULT 0');
    await runner.query('ALTER TABLE student ADD COLUMN entered_at INTEGER');
    await runner.query('UPDATE student SET entered_at = joined_at');
    await runner.query('ALTER TABLE sitting ADD COLUMN locked INTEGER NOT NULL DEFAULT 0');
    await runner.query('CREATE INDEX picture_by_sitting ON picture (sitting_id)');
    await runner.query('CREATE INDEX picture_by_file ON picture (sha256)');
    await runner.query(`CREATE TABLE sitting_material (
      sitting_id TEXT NOT NULL REFERENCES sitting(id) ON DELETE CASCADE,
      material_id TEXT NOT NULL REFERENCES material(id) ON DELETE CASCADE,
      PRIMARY KEY (sitting_id, material_id)
    ) STRICT, WITHOUT ROWID`);
    await runner.query('CREATE TABLE gone_file (sha256 TEXT PRIMARY KEY, at INTEGER NOT NULL) STRICT');
    for (const [table, column] of NAMING) {
      const note = `WHEN OLD.${column} IS NOT NULL BEGIN
        INSERT OR REPLACE INTO gone_file VALUES (OLD.${column}, unixepoch() * 1000); END`;
      await runner.query(`CREATE TRIGGER ${table}_gone AFTER DELETE ON ${table} ${note}`);
      await runner.query(`CREATE TRIGGER ${table}_changed AFTER UPDATE OF ${column} ON ${table} ${note}`);
    }
    await runner.query('CREATE TABLE school (id TEXT PRIMARY KEY) STRICT');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE school');
    for (const [table] of NAMING)
      for (const what of ['gone', 'changed']) await runner.query(`DROP TRIGGER ${table}_${what}`);
    await runner.query('DROP TABLE gone_file');
    await runner.query('DROP TABLE sitting_material');
    await runner.query('DROP INDEX picture_by_file');
    await runner.query('DROP INDEX picture_by_sitting');
    await runner.query('ALTER TABLE sitting DROP COLUMN locked');
    await runner.query('ALTER TABLE student DROP COLUMN entered_at');
    await runner.query('ALTER TABLE picture DROP COLUMN bytes');
    await runner.query('ALTER TABLE picture DROP COLUMN sitting_id');
  }
}
