import type { MigrationInterface, QueryRunner } from 'typeorm';

const COLUMNS = 'id, sitting_id, kind, code, created_at, entered_at, removed_at';

/** Companions, which come into a class as displays and pads do. SQLite cannot change a check, so the table is made anew. */
export class Companions1700000000026 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await rebuild(runner, ['display', 'pad', 'companion']);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DELETE FROM device WHERE kind = 'companion'`);
    await rebuild(runner, ['display', 'pad']);
  }
}

/** Nothing refers to devices, so they can be moved as they are. */
async function rebuild(runner: QueryRunner, kinds: readonly string[]): Promise<void> {
  await runner.query(`CREATE TABLE device_new (
    id TEXT PRIMARY KEY,
    sitting_id TEXT NOT NULL REFERENCES sitting(id) ON DELETE CASCADE,
    kind TEXT NOT NULL CHECK (kind IN (${kinds.map((kind) => `'${kind}'`).join(', ')})),
    code TEXT NOT NULL,
    created_at INTEGER NOT NULL,
    entered_at INTEGER,
    removed_at INTEGER
  ) STRICT`);
  await runner.query(`INSERT INTO device_new (${COLUMNS}) SELECT ${COLUMNS} FROM device`);
  await runner.query('DROP TABLE device');
  await runner.query('ALTER TABLE device_new RENAME TO device');
  await runner.query('CREATE INDEX device_code ON device(code)');
  await runner.query('CREATE INDEX device_sitting ON device(sitting_id)');
}
