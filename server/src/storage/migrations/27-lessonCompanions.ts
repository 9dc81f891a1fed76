import type { MigrationInterface, QueryRunner } from 'typeorm';

const COLUMNS = 'id, sitting_id, kind, code, created_at, entered_at, removed_at';
const REST = `kind TEXT NOT NULL CHECK (kind IN ('display', 'pad', 'companion')),
    code TEXT NOT NULL,
    created_at INTEGER NOT NULL,
    entered_at INTEGER,
    removed_at INTEGER`;

/** Companions that bring pages into a lesson without a class. SQLite cannot let a column be empty afterwards, so the table is made anew. */
export class LessonCompanions1700000000027 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await rebuild(
      runner,
      `sitting_id TEXT REFERENCES sitting(id) ON DELETE CASCADE,
    lesson_id TEXT REFERENCES lesson(id) ON DELETE CASCADE,
    ${REST},
    CHECK ((sitting_id IS NULL) <> (lesson_id IS NULL)),
    CHECK (lesson_id IS NULL OR kind = 'companion')`,
    );
    await runner.query('CREATE INDEX device_lesson ON device(lesson_id)');
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DELETE FROM device WHERE sitting_id IS NULL');
    await rebuild(
      runner,
      `sitting_id TEXT NOT NULL REFERENCES sitting(id) ON DELETE CASCADE,
    ${REST}`,
    );
  }
}

/** Nothing refers to devices, so they can be moved as they are. */
async function rebuild(runner: QueryRunner, columns: string): Promise<void> {
  await runner.query(`CREATE TABLE device_new (
    id TEXT PRIMARY KEY,
    ${columns}
  ) STRICT`);
  await runner.query(`INSERT INTO device_new (${COLUMNS}) SELECT ${COLUMNS} FROM device`);
  await runner.query('DROP TABLE device');
  await runner.query('ALTER TABLE device_new RENAME TO device');
  await runner.query('CREATE INDEX device_code ON device(code)');
  await runner.query('CREATE INDEX device_sitting ON device(sitting_id)');
}
