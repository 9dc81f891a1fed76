import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Folders, favourites, tags, the archive, and the words by which pages are found. */
export class Finding1700000000013 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    for (const statement of UP) await runner.query(statement);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const statement of DOWN) await runner.query(statement);
  }
}

const UP = [
  `CREATE TABLE lesson_folder (
    id TEXT PRIMARY KEY,
    teacher_id TEXT NOT NULL REFERENCES teacher(id) ON DELETE CASCADE,
    parent_id TEXT REFERENCES lesson_folder(id) ON DELETE SET NULL,
    title TEXT NOT NULL,
    created_at INTEGER NOT NULL
  ) STRICT`,
  'CREATE INDEX lesson_folder_by_teacher ON lesson_folder (teacher_id)',
  'ALTER TABLE lesson ADD COLUMN folder_id TEXT',
  'ALTER TABLE lesson ADD COLUMN favourite INTEGER NOT NULL DEFAULT 0',
  'ALTER TABLE lesson ADD COLUMN tags TEXT',
  'ALTER TABLE lesson ADD COLUMN archived_at INTEGER',
  `CREATE TABLE found_page (
    key INTEGER PRIMARY KEY,
    log TEXT NOT NULL,
    page TEXT NOT NULL,
    lesson_id TEXT NOT NULL REFERENCES lesson(id) ON DELETE CASCADE,
    sitting_id TEXT REFERENCES sitting(id) ON DELETE CASCADE,
    UNIQUE (log, page)
  ) STRICT`,
  'CREATE INDEX found_page_by_lesson ON found_page (lesson_id)',
  'CREATE INDEX found_page_by_sitting ON found_page (sitting_id)',
  // The rows of both have the same numbers; letters with and without accents are the same.
  `CREATE VIRTUAL TABLE found_words USING fts5(
    title, typed, printed, notes, tokenize = "unicode61 remove_diacritics 2", prefix = '2 3')`,
  `CREATE TRIGGER found_page_gone AFTER DELETE ON found_page BEGIN
    DELETE FROM found_words WHERE rowid = old.key;
  END`,
  `CREATE TABLE printed_words (
    sha256 TEXT NOT NULL,
    page INTEGER NOT NULL,
    words TEXT NOT NULL,
    PRIMARY KEY (sha256, page)
  ) STRICT, WITHOUT ROWID`,
];

const DOWN = [
  'DROP TABLE printed_words',
  'DROP TABLE found_page',
  'DROP TABLE found_words',
  ...['archived_at', 'tags', 'favourite', 'folder_id'].map(
    (column) => `ALTER TABLE lesson DROP COLUMN ${column}`,
  ),
  'DROP TABLE lesson_folder',
];
