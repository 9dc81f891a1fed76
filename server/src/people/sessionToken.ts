import { createHash, randomBytes } from 'node:crypto';

export const SESSION_DAYS = 30;
const SESSION_MS = SESSION_DAYS * 24 * 3600 * 1000;

/** What a session goes by; its token is kept nowhere. */
export function sessionOf(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}

/** A new session: its token, which is for the browser alone, and what is kept. */
export function newSession(): { token: string; kept: { tokenHash: string; expiresAt: number } } {
  const token = randomBytes(32).toString('base64url');
  return { token, kept: { tokenHash: sessionOf(token), expiresAt: Date.now() + SESSION_MS } };
}
