import Database from 'better-sqlite3';
import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { join } from 'node:path';

/**
 * Adds a teacher to a running server, in its database, and signs them in: each test has a school to itself
 * without a server to itself. Returns the token of the session.
 */
export function addTeacher(dataFolder: string, name: string): string {
  const database = new Database(join(dataFolder, 'doodla.sqlite'));
  const token = randomBytes(32).toString('base64url');
  const id = randomUUID();
  try {
    database.pragma('busy_timeout = 5000');
    database
      .prepare(
        'INSERT INTO teacher (id, name, email, password_hash, admin, created_at) VALUES (?, ?, ?, ?, 1, ?)',
      )
      .run(id, name, `${id}@school.example`, 'none', Date.now());
    database
      .prepare('INSERT INTO session (token_hash, teacher_id, expires_at) VALUES (?, ?, ?)')
      .run(createHash('sha256').update(token).digest('hex'), id, Date.now() + 86_400_000);
  } finally {
    database.close();
  }
  return token;
}
