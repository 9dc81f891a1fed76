import type { MigrationInterface, QueryRunner } from 'typeorm';

const TABLES = [
  `CREATE TABLE teacher (
    id TEXT PRIMARY KEY,
    name TEXT NOT NULL,
    email TEXT NOT NULL UNIQUE COLLATE NOCASE,
    password_hash TEXT NOT NULL,
    created_at INTEGER NOT NULL
  ) STRICT`,
  `CREATE TABLE session (
    token_hash TEXT PRIMARY KEY,
    teacher_id TEXT NOT NULL REFERENCES teacher(id) ON DELETE CASCADE,
    expires_at INTEGER NOT NULL
  ) STRICT`,
  `CREATE TABLE material (
    id TEXT PRIMARY KEY,
    teacher_id TEXT NOT NULL REFERENCES teacher(id) ON DELETE CASCADE,
    kind TEXT NOT NULL CHECK (kind IN ('pdf')),
    name TEXT NOT NULL,
    sha256 TEXT NOT NULL,
    bytes INTEGER NOT NULL,
    page_count INTEGER NOT NULL,
    created_at INTEGER NOT NULL
  ) STRICT`,
  `CREATE TABLE lesson (
    id TEXT PRIMARY KEY,
    teacher_id TEXT NOT NULL REFERENCES teacher(id) ON DELETE CASCADE,
    title TEXT NOT NULL,
    cover_sha256 TEXT,
    created_at INTEGER NOT NULL,
    used_at INTEGER NOT NULL,
    deleted_at INTEGER
  ) STRICT`,
  `CREATE INDEX lesson_by_teacher ON lesson (teacher_id, used_at)`,
  `CREATE TABLE lesson_material (
    lesson_id TEXT NOT NULL REFERENCES lesson(id) ON DELETE CASCADE,
    material_id TEXT NOT NULL REFERENCES material(id) ON DELETE CASCADE,
    PRIMARY KEY (lesson_id, material_id)
  ) STRICT, WITHOUT ROWID`,
  `CREATE TABLE sitting (
    id TEXT PRIMARY KEY,
    lesson_id TEXT NOT NULL REFERENCES lesson(id) ON DELETE CASCADE,
    title TEXT NOT NULL,
    code TEXT NOT NULL,
    page_id TEXT NOT NULL,
    pens_up INTEGER NOT NULL,
    opened_at INTEGER NOT NULL,
    ended_at INTEGER
  ) STRICT`,
  `CREATE UNIQUE INDEX sitting_open_code ON sitting (code) WHERE ended_at IS NULL`,
  `CREATE INDEX sitting_by_lesson ON sitting (lesson_id, opened_at)`,
  `CREATE TABLE student (
    id TEXT PRIMARY KEY,
    sitting_id TEXT NOT NULL REFERENCES sitting(id) ON DELETE CASCADE,
    name TEXT NOT NULL COLLATE NOCASE,
    colour TEXT NOT NULL,
    joined_at INTEGER NOT NULL,
    UNIQUE (sitting_id, name)
  ) STRICT`,
  `CREATE TABLE operation (
    log_id TEXT NOT NULL,
    seq INTEGER NOT NULL,
    id TEXT NOT NULL,
    author TEXT NOT NULL,
    at INTEGER NOT NULL,
    undoes TEXT,
    changes TEXT NOT NULL,
    inverse TEXT NOT NULL,
    PRIMARY KEY (log_id, seq),
    UNIQUE (log_id, id)
  ) STRICT`,
  `CREATE INDEX operation_by_author ON operation (log_id, author, seq)`,
  `CREATE TABLE snapshot (
    log_id TEXT PRIMARY KEY,
    seq INTEGER NOT NULL,
    body TEXT NOT NULL
  ) STRICT`,
];

export class FirstLesson1700000000001 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    for (const statement of TABLES) await runner.query(statement);
  }

  async down(runner: QueryRunner): Promise<void> {
    const tables = [
      'snapshot',
      'operation',
      'student',
      'sitting',
      'lesson_material',
      'lesson',
      'material',
      'session',
      'teacher',
    ];
    for (const table of tables) await runner.query(`DROP TABLE ${table}`);
  }
}
