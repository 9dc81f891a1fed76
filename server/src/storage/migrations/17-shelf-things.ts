import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Marks and pages on a shelf, with their pictures and documents. */
export class ShelfThings1700000000017 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE shelf_thing (
      id TEXT PRIMARY KEY,
      teacher_id TEXT NOT NULL REFERENCES teacher(id) ON DELETE CASCADE,
      kind TEXT NOT NULL CHECK (kind IN ('marks', 'pages')),
      title TEXT NOT NULL,
      folder TEXT NOT NULL,
      words TEXT NOT NULL,
      count INTEGER NOT NULL,
      shared INTEGER NOT NULL,
      preview_sha256 TEXT,
      content BLOB NOT NULL,
      created_at INTEGER NOT NULL,
      deleted_at INTEGER
    ) STRICT`);
    await runner.query('CREATE INDEX shelf_thing_by_teacher ON shelf_thing (teacher_id)');
    await runner.query('CREATE INDEX shelf_thing_of_school ON shelf_thing (created_at) WHERE shared');
    await runner.query(`CREATE TABLE shelf_thing_picture (
      id TEXT PRIMARY KEY,
      thing_id TEXT NOT NULL REFERENCES shelf_thing(id) ON DELETE CASCADE,
      type TEXT NOT NULL CHECK (type IN ('png', 'jpeg')),
      sha256 TEXT NOT NULL,
      bytes INTEGER NOT NULL
    ) STRICT`);
    await runner.query('CREATE INDEX shelf_thing_picture_by_thing ON shelf_thing_picture (thing_id)');
    await runner.query(`CREATE TABLE shelf_thing_material (
      thing_id TEXT NOT NULL REFERENCES shelf_thing(id) ON DELETE CASCADE,
      material_id TEXT NOT NULL REFERENCES material(id) ON DELETE CASCADE,
      PRIMARY KEY (thing_id, material_id)
    ) STRICT, WITHOUT ROWID`);
    await runner.query('CREATE INDEX shelf_thing_material_by_material ON shelf_thing_material (material_id)');
    await this.noteGone(runner, 'shelf_thing', 'preview_sha256');
    await this.noteGone(runner, 'shelf_thing_picture', 'sha256');
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['shelf_thing_material', 'shelf_thing_picture', 'shelf_thing'])
      await runner.query(`DROP TABLE ${table}`);
  }

  private async noteGone(runner: QueryRunner, table: string, column: string): Promise<void> {
    const note = `WHEN OLD.${column} IS NOT NULL BEGIN
      INSERT OR REPLACE INTO gone_file VALUES (OLD.${column}, unixepoch() * 1000); END`;
    await runner.query(`CREATE TRIGGER ${table}_gone AFTER DELETE ON ${table} ${note}`);
    await runner.query(`CREATE TRIGGER ${table}_changed AFTER UPDATE OF ${column} ON ${table} ${note}`);
  }
}
