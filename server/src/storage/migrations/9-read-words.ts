import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Words that have been read on scanned pages. */
export class ReadWords1700000000009 implements MigrationInterface {
  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`CREATE TABLE read_words (
      sha256 TEXT NOT NULL,
      page INTEGER NOT NULL,
      language TEXT NOT NULL,
      words TEXT NOT NULL,
      PRIMARY KEY (sha256, page)
    ) STRICT, WITHOUT ROWID`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query('DROP TABLE read_words');
  }
}
