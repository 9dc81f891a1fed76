import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Notes beside pages, and web pages among the materials; a check cannot be changed, so the table is made anew. */
export class Notes1700000000004 implements MigrationInterface {
  // Foreign keys can only be switched off outside a transaction (SQLite, "Making Other Kinds Of Table Schema Changes").
  transaction = false as const;

  up(runner: QueryRunner): Promise<void> {
    return rebuild(runner, "'pdf', 'web'", true);
  }

  down(runner: QueryRunner): Promise<void> {
    return rebuild(runner, "'pdf'", false);
  }
}

const COLUMNS = 'id, teacher_id, kind, name, sha256, bytes, page_count, created_at';

async function rebuild(runner: QueryRunner, kinds: string, withNotes: boolean): Promise<void> {
  await runner.query('PRAGMA foreign_keys = OFF');
  await runner.query('BEGIN');
  await runner.query(`CREATE TABLE material_new (
    id TEXT PRIMARY KEY,
    teacher_id TEXT NOT NULL REFERENCES teacher(id) ON DELETE CASCADE,
    kind TEXT NOT NULL CHECK (kind IN (${kinds})),
    name TEXT NOT NULL,
    sha256 TEXT NOT NULL,
    bytes INTEGER NOT NULL,
    page_count INTEGER NOT NULL,
    created_at INTEGER NOT NULL${withNotes ? ', notes TEXT' : ''}
  ) STRICT`);
  await runner.query(`INSERT INTO material_new (${COLUMNS}) SELECT ${COLUMNS} FROM material`);
  await runner.query('DROP TABLE material');
  await runner.query('ALTER TABLE material_new RENAME TO material');
  await runner.query('COMMIT');
  await runner.query('PRAGMA foreign_keys = ON');
}
