import { hash, verify } from 'argon2';
import { Problem } from '../http/problem.js';

/** Waiting longer than this many others have to be turned away, or nobody would get an answer in time. */
const MOST_WAITING = 24;

let tail: Promise<unknown> = Promise.resolve();
let waiting = 0;

/**
 * Argon2id with the package's defaults (64 MiB, 3 passes), as RFC 9106 §4 recommends for servers. One at a time:
 * hashing takes a thread of those that files and names of hosts need too. Throws Problem where too many wait.
 */
export function hashPassword(password: string): Promise<string> {
  return inTurn(() => hash(password));
}

/** Throws Problem where too many wait. */
export function passwordMatches(passwordHash: string, password: string): Promise<boolean> {
  return inTurn(() => verify(passwordHash, password));
}

function inTurn<T>(task: () => Promise<T>): Promise<T> {
  if (waiting >= MOST_WAITING)
    return Promise.reject(
      new Problem(
        503,
        'sign-in-busy',
        'Too many people are signing in at once. Please try again in a few seconds.',
      ),
    );
  waiting += 1;
  const result = tail.then(task).finally(() => (waiting -= 1));
  tail = result.catch(() => undefined); // Whoever asked for it hears of its failure.
  return result;
}
