import type { Request } from 'express';
import { RateLimiterMemory } from 'rate-limiter-flexible';
import { Problem } from './problem.js';

/** Holds those up who try codes: wrong ones from one address in ten minutes; a whole class may sit behind one. */
export class AttemptLimit {
  private readonly wrong = new RateLimiterMemory({ points: 100, duration: 600 });

  /** Does what a code is for; counts it where it fails. Throws Problem. */
  async guard<T>(request: Request, attempt: () => Promise<T>): Promise<T> {
    const from = request.ip ?? '';
    const spent = await this.wrong.get(from);
    if (spent && spent.remainingPoints <= 0) {
      throw new Problem(
        429,
        'too-many-attempts',
        'Too many wrong codes. Please wait ten minutes and try again.',
      );
    }
    try {
      return await attempt();
    } catch (error) {
      await this.wrong.penalty(from);
      throw error;
    }
  }
}
