import { TokenBucket } from './tokenBucket.js';

const MB = 1_000_000;
/** Bytes at once and a second: far more than classes write, far less than fills a disk in a lesson. */
const CLASS = { burst: 64 * MB, perSecond: 4 * MB };
const SCHOOL = { burst: 256 * MB, perSecond: 16 * MB };

/** How much may be written in one log, and in all of them together, by however many people. */
export class SharedBudget {
  private readonly logs = new WeakMap<object, TokenBucket>();
  private readonly school = new TokenBucket(SCHOOL.burst, SCHOOL.perSecond);

  /** Whether so many bytes more may be written in a log now. */
  take(log: object, bytes: number): boolean {
    let own = this.logs.get(log);
    if (!own) this.logs.set(log, (own = new TokenBucket(CLASS.burst, CLASS.perSecond)));
    return own.take(bytes) && this.school.take(bytes);
  }
}
