import { hash, verify } from 'argon2';

/** Argon2id with the package's defaults (64 MiB, 3 passes), as RFC 9106 §4 recommends for servers. */
export function hashPassword(password: string): Promise<string> {
  return hash(password);
}

export function passwordMatches(passwordHash: string, password: string): Promise<boolean> {
  return verify(passwordHash, password);
}
