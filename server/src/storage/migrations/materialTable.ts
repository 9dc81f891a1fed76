import type { QueryRunner } from 'typeorm';

const COLUMNS = ['id', 'teacher_id', 'kind', 'name', 'sha256', 'bytes', 'page_count', 'created_at'];

/**
 * Makes the table of materials anew with other kinds, since SQLite cannot change a check. Only outside a
 * transaction, where foreign keys can be switched off (SQLite, "Making Other Kinds Of Table Schema Changes").
 * `kept` are columns of the old table beyond the first ones, `added` the definitions of further new ones.
 */
export async function rebuildMaterial(
  runner: QueryRunner,
  kinds: readonly string[],
  { kept = [], added = [] }: { kept?: readonly string[]; added?: readonly string[] },
): Promise<void> {
  const copied = [...COLUMNS, ...kept].join(', ');
  const further = [...kept.map((name) => `${name} TEXT`), ...added].map((column) => `, ${column}`).join('');
  await runner.query('PRAGMA foreign_keys = OFF');
  await runner.query('BEGIN');
  await runner.query(`CREATE TABLE material_new (
    id TEXT PRIMARY KEY,
    teacher_id TEXT NOT NULL REFERENCES teacher(id) ON DELETE CASCADE,
    kind TEXT NOT NULL CHECK (kind IN (${kinds.map((kind) => `'${kind}'`).join(', ')})),
    name TEXT NOT NULL,
    sha256 TEXT NOT NULL,
    bytes INTEGER NOT NULL,
    page_count INTEGER NOT NULL,
    created_at INTEGER NOT NULL${further}
  ) STRICT`);
  await runner.query(`INSERT INTO material_new (${copied}) SELECT ${copied} FROM material`);
  await runner.query('DROP TABLE material');
  await runner.query('ALTER TABLE material_new RENAME TO material');
  await runner.query('COMMIT');
  await runner.query('PRAGMA foreign_keys = ON');
}
