import type { MigrationInterface, QueryRunner } from 'typeorm';
import { isPostgres } from '../storage/dialect.js';
import { FIRST_SCHOOL } from './school.entity.js';

const LIMITS = ['max_upload_mb', 'max_pages', 'retention_days'] as const;
/** Names of limits in the table where they were before. */
const NAMED = { max_upload_mb: 'maxUploadMb', max_pages: 'maxPages', retention_days: 'retentionDays' };

interface Words {
  number: string;
  yesOrNo: string;
  no: string;
  anyCase: string;
  strict: string;
}
const SQLITE: Words = {
  number: 'INTEGER',
  yesOrNo: 'INTEGER',
  no: '0',
  anyCase: 'TEXT COLLATE NOCASE',
  strict: ' STRICT',
};
const POSTGRES: Words = {
  number: 'BIGINT',
  yesOrNo: 'BOOLEAN',
  no: 'FALSE',
  anyCase: 'TEXT COLLATE any_case',
  strict: '',
};

/**
 * Schools of an installation, and who looks after it; all that is there belongs to the first one. An address is good once
 * in a school, no longer once in all. The table `school_limit` is left to the version before, which may run beside this one.
 */
export class Schools1700000000029 implements MigrationInterface {
  /** SQLite makes the table of teachers anew, with its foreign keys switched off, which it does outside a transaction alone. */
  transaction = false as const;

  async up(runner: QueryRunner): Promise<void> {
    const isLarge = isPostgres(runner.dataSource);
    if (!isLarge) await runner.query('PRAGMA foreign_keys = OFF');
    await runner.query('BEGIN');
    try {
      for (const change of isLarge ? POSTGRES_CHANGES : SQLITE_CHANGES) await runner.query(change);
      await runner.query('COMMIT');
    } catch (error) {
      await runner.query('ROLLBACK');
      throw error;
    } finally {
      if (!isLarge) await runner.query('PRAGMA foreign_keys = ON');
    }
  }

  down(): Promise<void> {
    return Promise.reject(new Error('Schools cannot be put together again. Put a backup back instead.'));
  }
}

const tables = ({ number, yesOrNo, no, anyCase, strict }: Words) => [
  `CREATE TABLE tenant (
    id TEXT PRIMARY KEY,
    name TEXT NOT NULL,
    slug ${anyCase} NOT NULL UNIQUE,
    created_at ${number} NOT NULL,
    closed_at ${number},
    max_bytes ${number},
    max_teachers ${number},
    max_upload_mb ${number},
    max_pages ${number},
    retention_days ${number},
    tell_of_recording ${yesOrNo} NOT NULL DEFAULT ${no},
    oidc_issuer TEXT,
    oidc_client_id TEXT,
    oidc_client_secret TEXT,
    oidc_trust_email ${yesOrNo} NOT NULL DEFAULT ${no}
  )${strict}`,
  `CREATE TABLE school_deed (
    id TEXT PRIMARY KEY,
    school_id TEXT NOT NULL REFERENCES tenant(id) ON DELETE CASCADE,
    at ${number} NOT NULL,
    kind TEXT NOT NULL,
    what TEXT NOT NULL,
    done_by TEXT NOT NULL
  )${strict}`,
  `CREATE TABLE school_cleared (
    school_id TEXT NOT NULL REFERENCES tenant(id) ON DELETE CASCADE,
    at ${number} NOT NULL,
    classes ${number} NOT NULL,
    lessons ${number} NOT NULL,
    PRIMARY KEY (school_id, at)
  )${strict}`,
  'CREATE INDEX school_deed_by_school ON school_deed (school_id, at)',
  `CREATE TABLE operator (
    id TEXT PRIMARY KEY,
    name TEXT NOT NULL,
    email ${anyCase} NOT NULL UNIQUE,
    password_hash TEXT NOT NULL,
    created_at ${number} NOT NULL
  )${strict}`,
  `CREATE TABLE operator_session (
    token_hash TEXT PRIMARY KEY,
    operator_id TEXT NOT NULL REFERENCES operator(id) ON DELETE CASCADE,
    expires_at ${number} NOT NULL
  )${strict}`,
];

/** With the limits that were set; it is as old as its first teacher. */
function firstSchool({ yesOrNo }: Words): string {
  const limit = (name: string) => `(SELECT value FROM school_limit WHERE name = '${name}')`;
  const told = `coalesce(${limit('tellOfRecording')}, 0)`;
  return `INSERT INTO tenant (id, name, slug, created_at, ${LIMITS.join(', ')}, tell_of_recording)
    SELECT '${FIRST_SCHOOL}', '', 'school', coalesce((SELECT min(created_at) FROM teacher), 0),
      ${LIMITS.map((name) => limit(NAMED[name])).join(', ')}, ${yesOrNo === 'BOOLEAN' ? `${told} = 1` : told}`;
}

const POSTGRES_TEACHERS = [
  `ALTER TABLE teacher ADD COLUMN school_id TEXT NOT NULL DEFAULT '${FIRST_SCHOOL}' REFERENCES tenant(id)`,
  'ALTER TABLE teacher DROP CONSTRAINT teacher_email_key',
  'ALTER TABLE teacher ADD CONSTRAINT teacher_email_key UNIQUE (school_id, email)',
  'DROP INDEX teacher_by_subject',
];

const COLUMNS = 'id, name, email, password_hash, created_at, admin, subject';
const SQLITE_TEACHERS = [
  `CREATE TABLE teacher_new (
    id TEXT PRIMARY KEY,
    name TEXT NOT NULL,
    email TEXT NOT NULL COLLATE NOCASE,
    password_hash TEXT NOT NULL,
    created_at INTEGER NOT NULL,
    admin INTEGER NOT NULL DEFAULT 0,
    subject TEXT,
    school_id TEXT NOT NULL DEFAULT '${FIRST_SCHOOL}' REFERENCES tenant(id),
    UNIQUE (school_id, email)
  ) STRICT`,
  `INSERT INTO teacher_new (${COLUMNS}) SELECT ${COLUMNS} FROM teacher`,
  'DROP TABLE teacher',
  'ALTER TABLE teacher_new RENAME TO teacher',
];

const INDEXES = [
  'CREATE UNIQUE INDEX teacher_by_subject ON teacher (school_id, subject) WHERE subject IS NOT NULL',
  'CREATE INDEX teacher_by_email ON teacher (email)',
  'CREATE INDEX material_by_teacher ON material (teacher_id)',
];

const invitations = ({ yesOrNo, no }: Words) => [
  `ALTER TABLE invitation ADD COLUMN school_id TEXT DEFAULT '${FIRST_SCHOOL}'`,
  `ALTER TABLE invitation ADD COLUMN admin ${yesOrNo} NOT NULL DEFAULT ${no}`,
];

const changes = (words: Words, teachers: readonly string[]) => [
  ...tables(words),
  firstSchool(words),
  ...invitations(words),
  ...teachers,
  ...INDEXES,
];
const SQLITE_CHANGES = changes(SQLITE, SQLITE_TEACHERS);
const POSTGRES_CHANGES = changes(POSTGRES, POSTGRES_TEACHERS);
