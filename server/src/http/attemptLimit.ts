import type { Request } from 'express';
import type { RateLimiterAbstract } from 'rate-limiter-flexible';
import type { Limiters } from '../processes/limiters.js';
import { Problem } from './problem.js';

/** Wrong codes from one address in ten minutes, after which every further code takes a while. */
const MOST_WRONG = 100;
/** What counts as a wrong try. */
const WRONG = new Set([
  'wrong-code',
  'wrong-class-password',
  'wrong-link-password',
  'link-gone',
  'invitation-gone',
  'school-sign-in-failed',
]);
/** How long each code takes then, and how many may wait at once: too slow to guess by, bearable for who has the right one. */
const SLOW_MS = 1000;
const MOST_WAITING = 40;

/**
 * Slows those down who try codes. Nobody is shut out, since a whole school may sit behind one address: right
 * codes always go through in the end, whatever others there have typed.
 */
export class AttemptLimit {
  private readonly wrong: RateLimiterAbstract;
  private readonly waiting = new Map<string, number>();

  /** `name` is that of what the codes are for. */
  constructor(limiters: Limiters, name: string) {
    this.wrong = limiters.of(`wrong-${name}`, MOST_WRONG, 600);
  }

  /** Does what a code is for; counts it where it fails. Throws Problem. */
  async guard<T>(request: Request, attempt: () => Promise<T>): Promise<T> {
    const from = request.ip ?? '';
    const spent = await this.wrong.get(from);
    if (spent && spent.remainingPoints <= 0) await this.slowDown(from);
    try {
      return await attempt();
    } catch (error) {
      if (error instanceof Problem && WRONG.has(error.code)) await this.wrong.penalty(from);
      throw error;
    }
  }

  private async slowDown(from: string): Promise<void> {
    const before = this.waiting.get(from) ?? 0;
    if (before >= MOST_WAITING)
      throw new Problem(
        429,
        'too-many-attempts',
        'Too many wrong codes have been typed here. Please look at the code again and try in a moment.',
      );
    this.waiting.set(from, before + 1);
    await new Promise((resolve) => setTimeout(resolve, SLOW_MS));
    const after = this.waiting.get(from)! - 1;
    if (after === 0) this.waiting.delete(from);
    else this.waiting.set(from, after);
  }
}
