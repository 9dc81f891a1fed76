import type { MigrationInterface, QueryRunner } from 'typeorm';

const SITTING_COLUMNS = [
  'rules TEXT',
  'pens TEXT',
  'ways TEXT',
  'tables TEXT',
  'copy TEXT',
  'nodding INTEGER NOT NULL DEFAULT 0',
  'password_hash TEXT',
  'group_id TEXT REFERENCES class_group(id) ON DELETE SET NULL',
];

/** Groups that are taught all term, who is let into a class, what its students may, their seats, tables and copies. */
export class DoorsAndRules1700000000010 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE class_group (
      id TEXT PRIMARY KEY,
      teacher_id TEXT NOT NULL REFERENCES teacher(id) ON DELETE CASCADE,
      title TEXT NOT NULL,
      names TEXT NOT NULL,
      code TEXT UNIQUE,
      created_at INTEGER NOT NULL
    ) STRICT`);
    await runner.query('CREATE INDEX class_group_by_teacher ON class_group (teacher_id)');
    for (const column of SITTING_COLUMNS) await runner.query(`ALTER TABLE sitting ADD COLUMN ${column}`);
    await runner.query('CREATE INDEX sitting_by_group ON sitting (group_id)');
    await runner.query('ALTER TABLE student ADD COLUMN seat INTEGER NOT NULL DEFAULT 0');
    // In the order in which they came, as new ones get theirs.
    await runner.query(`UPDATE student SET seat = (SELECT COUNT(*) FROM student AS before
      WHERE before.sitting_id = student.sitting_id
        AND (before.joined_at, before.id) < (student.joined_at, student.id))`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('ALTER TABLE student DROP COLUMN seat');
    await runner.query('DROP INDEX sitting_by_group');
    for (const column of SITTING_COLUMNS.toReversed())
      await runner.query(`ALTER TABLE sitting DROP COLUMN ${column.split(' ')[0]}`);
    await runner.query('DROP TABLE class_group');
  }
}
